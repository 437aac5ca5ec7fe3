/** Every sentence, in every form: a capital first, a full stop last, right plurals, and no word that this trade stumbles over. */
import {
  analysisMessages,
  breachMessages,
  bundleMessages,
  bundlingMessages,
  captureMessages,
  changeMessages,
  documentMessages,
  eventFaultMessages,
  eventMessages,
  fileMessages,
  frameMessages,
  goalMessages,
  ledgerMessages,
  memberMessages,
  noteMessages,
  observeMessages,
  pairMessages,
  reviewMessages,
  roleMessages,
  signMessages,
  planMessages,
  seeMessages,
  stepMessages,
  storyMessages,
  tableMessages,
} from '.';
import { analysisSamples } from './samples/analysis';
import { bundleSamples, bundlingSamples, memberSamples } from './samples/bundles';
import { documentSamples } from './samples/document';
import { eventFaultSamples, eventSamples } from './samples/events';
import { fileSamples } from './samples/files';
import { frameSamples } from './samples/frames';
import { breachSamples, goalSamples } from './samples/goals';
import { ledgerSamples } from './samples/ledger';
import { noteSamples } from './samples/notes';
import { captureSamples, changeSamples, observeSamples, roleSamples } from './samples/observe';
import { pairSamples } from './samples/pairs';
import { planSamples, seeSamples } from './samples/plan';
import { stepSamples } from './samples/steps';
import { reviewSamples } from './samples/review';
import { signSamples, storySamples } from './samples/story';
import { tableSamples } from './samples/tables';
import { forbiddenWords, sentenceFaults } from './forbidden';
import { GLOSSARY } from './glossary';

type Sentences = Readonly<Record<string, (...values: never[]) => string>>;
type AllSamples = Readonly<Record<string, readonly (readonly unknown[])[]>>;

const walk = (sentences: Sentences, samples: AllSamples) =>
  Object.entries(sentences).flatMap(([code, sentence]) =>
    (samples[code] ?? []).map((values) => [code, sentence(...(values as never[]))] as const),
  );

/** Words that a value brings into a sentence, as its reader wrote them. */
const GIVEN = ["'undefined'", "'null'"];

test.each<[string, Sentences, AllSamples]>([
  ['analysis', analysisMessages, analysisSamples],
  ['bundles', bundleMessages, bundleSamples],
  ['bundling', bundlingMessages, bundlingSamples],
  ['captures', captureMessages, captureSamples],
  ['changes', changeMessages, changeSamples],
  ['document', documentMessages, documentSamples],
  ['event faults', eventFaultMessages, eventFaultSamples],
  ['files', fileMessages, fileSamples],
  ['frames', frameMessages, frameSamples],
  ['goals', goalMessages, goalSamples],
  ['ledger', ledgerMessages, ledgerSamples],
  ['members', memberMessages, memberSamples],
  ['notes', noteMessages, noteSamples],
  ['observe', observeMessages, observeSamples],
  ['pairs', pairMessages, pairSamples],
  ['plan', planMessages, planSamples],
  ['steps', stepMessages, stepSamples],
  ['review', reviewMessages, reviewSamples],
  ['story', storyMessages, storySamples],
  ['tables', tableMessages, tableSamples],
])('%s: each code has samples, and each sample is a sentence', (table, sentences, samples) => {
  expect(Object.keys(samples).sort()).toEqual(Object.keys(sentences).sort());
  const given = table === 'document' ? GIVEN : [];
  for (const [code, text] of walk(sentences, samples)) {
    const faults = sentenceFaults(text).filter((fault) => !given.includes(fault));
    expect([code, text, faults]).toEqual([code, text, []]);
  }
});

test.each<[string, Sentences, AllSamples]>([
  ['breaches', breachMessages, breachSamples],
  ['events', eventMessages, eventSamples],
  ['observed roles', roleMessages, roleSamples],
  ['plans', seeMessages, seeSamples],
  ['signs', signMessages, signSamples],
])('%s stand inside a sentence: they begin small and have no full stop', (_, sentences, samples) => {
  expect(Object.keys(samples).sort()).toEqual(Object.keys(sentences).sort());
  for (const [code, text] of walk(sentences, samples))
    expect([code, sentenceFaults(`Since ${text}.`), /[.]$/.test(text)]).toEqual([code, [], false]);
});

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
