/** Making a switch the root: the legal priority that beats everybody else, and who has to give way when none does. */
import { priorityInForce, setBridgePriority } from '../design';
import type { Design, Edit, Scope, Switch } from '../design';
import { BRIDGE_PRIORITY, macToNumber } from '../standard';

/** Highest legal priority with which `s` beats `rival` in the tree of a VLAN; negative when none does. */
function toBeat(s: Switch, rival: Switch, rivalPriority: number): number {
  return macToNumber(s.mac) < macToNumber(rival.mac) ? rivalPriority : rivalPriority - BRIDGE_PRIORITY.step;
}

/**
 * Edits that make a switch the root of the given trees (null: the one tree of all), touching as little as can be:
 * nothing where it wins already, else its own priority, and that of rivals only where priority 0 is not enough.
 * Switches that are off are rivals too, since they come back.
 */
export function makeRootEdits(design: Design, switchId: string, vlans: readonly number[] | null): Edit[] {
  const s = design.switches.find((candidate) => candidate.id === switchId)!;
  const rivals = design.switches.filter((other) => other.id !== switchId);
  return (vlans ?? [null]).flatMap((vlan) => {
    const scope: Scope = vlan === null ? 'all' : [vlan];
    const own = priorityInForce(design, s, vlan).value;
    const needed = rivals.map((rival) => toBeat(s, rival, priorityInForce(design, rival, vlan).value));
    const enough = Math.min(BRIDGE_PRIORITY.max, ...needed);
    if (own <= enough) return [];
    if (enough >= 0) return setBridgePriority(s, scope, enough);
    const inTheWay = rivals.filter((_, i) => needed[i]! < 0);
    return [
      ...(own === 0 ? [] : setBridgePriority(s, scope, 0)),
      ...inTheWay.flatMap((rival) => setBridgePriority(rival, scope, BRIDGE_PRIORITY.step)),
    ];
  });
}
