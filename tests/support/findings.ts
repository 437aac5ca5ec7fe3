/** What the review finds in a design, by code, and designs with something set otherwise. */
import type { Design, Edit } from '@/core/design';
import { findingsOf } from '@/core/review';
import { solveDesign } from '@/core/trees';
import { after as afterEdits } from './edits';

export const codesOf = (design: Design): string[] => findingsOf(solveDesign(design)).map((f) => f.code);
export const sentencesOf = (design: Design, code: string): string[] =>
  findingsOf(solveDesign(design)).flatMap((f) => (f.code === code ? [f.sentence] : []));
export const after = (design: Design, ...edits: Edit[]): Design => afterEdits(design, edits);
