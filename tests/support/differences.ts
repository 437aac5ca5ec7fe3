/** Where the rehearsal and the solver differ. */
import { isPerVlan, modeOf } from '@/core/design';
import type { Design } from '@/core/design';
import { mstConfigOf } from '@/core/network';
import { roleNow, stateNow } from '@/core/simulation';
import type { startRehearsal } from '@/core/simulation';
import { roleAt, settledState, solveDesign } from '@/core/trees';

/**
 * Whether a shared segment has several ports of one region beside a bridge of another or of none: an instance then depends on
 * who was heard last there (`rcvdInternal`), which the solver does not cover.
 */
function dependsOnLastHeard(design: Design): boolean {
  return design.segments.some(({ ports }) => {
    const regions = ports.map((id) => {
      const s = design.switches.find((x) => x.id === design.ports.find((p) => p.id === id)?.switch)!;
      return modeOf(design, s) === 'mstp' ? mstConfigOf(design, s).key : null;
    });
    return new Set(regions).size > 1 && regions.some((r, i) => r !== null && regions.indexOf(r) < i);
  });
}

/** Every port of every tree where the rehearsal and the solver differ. */
export function differences(design: Design, r: ReturnType<typeof startRehearsal>): string[] {
  const solved = solveDesign(design);
  const found: string[] = [];
  const unclear = dependsOnLastHeard(design);
  for (const of of solved.trees) {
    if (unclear && of.tree.instance) continue;
    const tree =
      of.tree.vlan === null ? of.tree.id : `vlan-${r.world.plan.representative.get(of.tree.vlan) ?? of.tree.vlan}`;
    solved.topology.ports.forEach(({ element }, p) => {
      const role = roleAt(of, p);
      const expected = role === 'disputed' ? 'designated' : role;
      const found_ = roleNow(r.world, tree, element.id);
      const forwards = stateNow(r.world, tree, element.id) === 'forwarding';
      const s = design.switches.find((x) => x.id === element.switch)!;
      if (expected === 'none' || s.off) return;
      // A switch without the tree follows another one, which is looked at by itself.
      if (of.tree.vlan !== null && !isPerVlan(modeOf(design, s))) return;
      const passes = settledState(role) === 'forwarding';
      if (found_ === expected && forwards !== passes)
        found.push(`${of.tree.id} ${element.id}: ${role}, and ${forwards ? 'forwards' : 'does not forward'}`);
      if (found_ !== expected)
        found.push(`${of.tree.id} ${element.id} (${modeOf(design, s)}): ${expected}, rehearsed ${found_}`);
    });
  }
  return found;
}

/** What each member of a bundle does at a moment of a rehearsal, by port. */
export const memberStandings = ({ world: w }: ReturnType<typeof startRehearsal>): [string, string][] =>
  [...w.bundleEnds.values()].flatMap(({ members }) =>
    members.map((id): [string, string] => {
      const { carrier, attached, held } = w.physical.get(id)!;
      return [id, !carrier ? 'down' : attached ? 'active' : held ? 'held' : 'alone'];
    }),
  );
