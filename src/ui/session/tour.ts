/** The tour of the stages: what is said of each when it is opened for the first time, and what was seen already. */
import { STAGES } from './stages';
import type { StageId } from './stages';

const TOUR: Readonly<Record<StageId, readonly string[]>> = {
  cabling: [
    'Cabling: draw the network. S puts a switch where the pointer is; pull from one switch to another for a cable.',
    'Paste a table of switches, ports or cables, or drop a file: what would change is shown before it is.',
    'J makes one bundle of the cables that are selected. Click a VLAN in the strip above to see where it reaches.',
  ],
  trees: [
    'Trees: for each VLAN or instance, the root is on top and every switch stands as far down as its root path costs.',
    'Click a port, a link or a switch: the panel says why it is as it is, to the last tie-break. R makes a switch root.',
    'Goals say what should hold; Propose finds the settings. Nothing changes before you accept it.',
  ],
  bundles: [
    'Bundles: the two ends as they are cabled, worst bundle first. What the ends disagree about is marked.',
    'What if shows a bundle with a link lost or an end set otherwise; Over time shows when each member joins.',
  ],
  rehearsal: [
    'Rehearsal: a script fails links and switches; the network answers as its devices would, frame by frame.',
    'Drag on the timeline, or press the arrow keys. What happened is listed beside; a line leads to its moment.',
    'Click a frame to see its octets and why the port decided as it did.',
  ],
  review: [
    'Review: what is set wrongly, what each failure does, and where a cable is missing; kept true while you edit.',
    'Click a failure to see the network with it. B shows it before and after; Rehearse it makes a script of it.',
    'A finding has a fix to preview, or is accepted with a reason and comes back when what it says changes.',
  ],
  'hand-over': [
    'Hand-over: the plan from one variant to another, in the order that interrupts least; each step is rehearsed.',
    'Say where you work from, and no step cuts you off from what is still to be set. Arrow keys go from step to step.',
    'Move, split or join steps: the figures follow. The work sheet has all of it with boxes to tick.',
  ],
  'as-built': [
    'As built: drop files that devices wrote, or ask the devices by SNMP; what is there is drawn beside the design.',
    'Differences are listed field by field: accept one and the design follows. B changes between designed and built.',
    'Questions say what is inferred, what is contradictory, and where devices deviate from the standard.',
  ],
};

/** Steps that are left for a stage; `done`: stages that were seen, or `off`. */
export function tourSteps(done: string, stage: StageId): readonly string[] {
  const seen = done.split(' ');
  return seen.includes('off') || seen.includes(stage) ? [] : TOUR[stage];
}

/** What was seen, after a stage or after the tour was turned off. */
export function tourAfter(done: string, what: StageId | 'off'): string {
  const seen = new Set([...done.split(' '), what]);
  return [...STAGES.map((s) => s.id), 'off'].filter((id) => seen.has(id)).join(' ');
}
