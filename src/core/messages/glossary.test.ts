import { readFileSync } from 'node:fs';
import path from 'node:path';
import { GLOSSARY, glossaryPage } from './glossary';
import type { Term } from './glossary';

const terms = Object.values<Term>(GLOSSARY);

test('each term has one short sentence, and no two terms are called the same', () => {
  expect(new Set(terms.map((t) => t.term.toLowerCase())).size).toBe(terms.length);
  for (const { term, sentence } of terms) {
    expect([term, sentence]).toEqual([term, expect.stringMatching(/^[A-Z].*\.$/)]);
    expect([term, sentence.split(' ').length <= 20]).toEqual([term, true]);
  }
});

test('the page in docs is the one that is made from the terms', () => {
  expect(readFileSync(path.join(process.cwd(), 'docs', 'glossary.md'), 'utf8')).toBe(glossaryPage());
});
