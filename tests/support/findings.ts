/** What the review finds in a design, by code, and designs with something set otherwise. */
import type { Design, Edit } from '@/core/design';
import { findingsOf } from '@/core/review';
import { solveDesign } from '@/core/trees';
import { asMeant } from '@/demo/brackwater';
import { after as afterEdits } from './edits';

export const codesOf = (design: Design): string[] => findingsOf(solveDesign(design)).map((f) => f.code);
export const sentencesOf = (design: Design, code: string): string[] =>
  findingsOf(solveDesign(design)).flatMap((f) => (f.code === code ? [f.sentence] : []));
export const after = (design: Design, ...edits: Edit[]): Design => afterEdits(design, edits);

/** A link between two switches of the demo that is in no bundle, and the port at its first end. */
const meant = asMeant();
const inBundle = (port: string) => meant.bundles.some((b) => b.members.includes(port));
export const UPLINK = meant.links.find((l) => 'port' in l.a && 'port' in l.b && !inBundle(l.a.port))!;
export const NEAR = 'port' in UPLINK.a ? UPLINK.a.port : '';
