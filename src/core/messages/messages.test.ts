/** Every sentence, in every form: a capital first, a full stop last, right plurals, and no word that this trade stumbles over. */
import { bundleMessages, bundleSamples } from './bundles';
import { forbiddenWords, sentenceFaults } from './forbidden';
import { GLOSSARY } from './glossary';

type Sentences = Readonly<Record<string, (...values: never[]) => string>>;

const walk = (sentences: Sentences, samples: Readonly<Record<string, readonly (readonly unknown[])[]>>) =>
  Object.entries(sentences).flatMap(([code, sentence]) =>
    (samples[code] ?? []).map((values) => [code, sentence(...(values as never[]))] as const),
  );

test.each([['bundles', bundleMessages as Sentences, bundleSamples]] as const)(
  '%s: each code has samples, and each sample is a sentence',
  (_, sentences, samples) => {
    expect(Object.keys(samples).sort()).toEqual(Object.keys(sentences).sort());
    for (const [code, text] of walk(sentences, samples)) expect([code, sentenceFaults(text)]).toEqual([code, []]);
  },
);

test('the glossary speaks as it tells others to', () => {
  for (const { sentence } of Object.values(GLOSSARY)) expect(sentenceFaults(sentence)).toEqual([]);
});

test('what is forbidden is found', () => {
  expect(sentenceFaults(`the port ${forbiddenWords[0]}`)).toEqual([
    'does not begin with a capital',
    'does not end with a full stop',
    `'${forbiddenWords[0]}'`,
  ]);
  expect(sentenceFaults('1 ports differ, undefined and 1 of 2.')).toEqual(["'1 ports'", "'undefined'"]);
  expect(forbiddenWords.length).toBeGreaterThan(20);
});
