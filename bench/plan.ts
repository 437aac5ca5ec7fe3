/** Figures of change plans: the demo's, which are searched for the best order, and a large one, ordered by theory. */
import { applyEdits, setField } from '../src/core/design';
import type { Design, Edit } from '../src/core/design';
import { planChange } from '../src/core/plan';
import { asCabled, asMeant, asPair } from '../src/demo/brackwater';
import { campus } from '../src/demo/campus';
import { quarryAsItIs, quarryPerVlan } from '../src/demo/quarry';
import type { Row } from './core';

/** Milliseconds after which the best so far is taken. */
const LONGEST = 20_000;

function planned(what: string, from: Design, to: Design, aim: string, runs: number): Row {
  const times: number[] = [];
  let size = '';
  for (let run = 0; run < runs; run++) {
    const began = performance.now();
    const found = planChange(from, to, {}, () => performance.now() - began > LONGEST);
    times.push(performance.now() - began);
    if (!found.ok) throw new Error(found.sentence);
    const { steps, exact } = found.plan;
    size = `${from.switches.length} switches, ${steps.length} steps, ${exact ? 'no order is better' : 'by theory'}`;
  }
  times.sort((a, b) => a - b);
  return { what, size, medianMs: times[times.length >> 1]!, worstMs: times.at(-1)!, runs, aim };
}

/** A campus in which 22 access switches, six others and two cables change. */
function largeChange(): readonly [Design, Design] {
  const from = campus({ switches: 60, vlans: 30, outcomes: 8 });
  const named = (part: RegExp) => from.switches.filter((s) => part.test(s.name));
  const edits: Edit[] = [
    ...named(/acc/)
      .slice(0, 22)
      .map((s) => setField('switch', s.id, 'priority', 61_440)),
    ...named(/dist|core/)
      .slice(0, 6)
      .map((s) => setField('switch', s.id, 'vlanPriority.10', 8192)),
    ...from.links.slice(5, 7).map((l): Edit => ({ type: 'remove', kind: 'link', id: l.id })),
  ];
  const applied = applyEdits(from, edits);
  if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
  return [from, applied.design];
}

export const planRows = (): Row[] => [
  planned('plan of the demo: as cabled to as meant', asCabled(), asMeant(), '', 3),
  planned('plan of the demo: as meant to a pair', asMeant(), asPair(), '', 3),
  planned('plan of a migration: closets per VLAN', quarryAsItIs(), quarryPerVlan(), '', 3),
  planned('plan of a large change', ...largeChange(), '20 s', 1),
];
