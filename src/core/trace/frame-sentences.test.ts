/** Each thing that a receiver can make of a frame has a whole sentence, with a vector to compare and without. */
import { sentenceFaults } from '../messages/forbidden';
import type { Vector } from '../standard';
import { lacpSentence, messageSentence } from './frame-sentences';
import type { MessageCase } from './frame-sentences';

const INFOS = [
  'SuperiorDesignated',
  'RepeatedDesignated',
  'InferiorDesignated',
  'InferiorRootAlternate',
  'Other',
  'better',
  'repeated',
  'answered',
  'ignored',
  'notification',
  'again',
  'stray',
  'inconsistent',
  'guarded',
];
const vector = { externalCost: 4 } as Vector;
const cost = {
  head: 'cost',
  words: 'root path cost',
  of: (v: Vector) => [v.externalCost],
  write: (v: Vector) => ({ text: String(v.externalCost), full: String(v.externalCost) }),
};
const yesNo = [true, false];

test.each(INFOS)('%s', (info) => {
  for (const whose of ['Mine', 'Received', 'Aged'] as const)
    for (const better of yesNo)
      for (const learns of yesNo)
        for (const part of [cost, null])
          for (const role of ['root', 'designated', 'alternate'] as const) {
            const message = { externalCost: better ? 2 : 8 } as Vector;
            const held = { vector, whose };
            const c: MessageCase = { info, part, message, held, better, learns, agrees: learns, role };
            const text = messageSentence(c);
            expect([text, sentenceFaults(text)]).toEqual([text, []]);
            // A word that stands right after a full stop begins like a sentence.
            expect(text).not.toMatch(/\. [a-z]|[a-z]accepted/);
            if (part && /\b[248]\b/.test(text)) expect(text).toContain('root path cost');
          }
});

test('a frame of a protocol that the port does not run is ignored, and nothing more is claimed', () => {
  expect(lacpSentence('ignored', null, null)).toBe('Ignored: the port negotiates no bundle, or by another protocol.');
});
