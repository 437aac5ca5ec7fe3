/** A design with a failure, from what the failure does to its trees. */
import type { Design } from '../design';
import { timersUnder } from '../analysis';
import { ROLE, ROLES } from '../trees';
import type { PortChange, SolvedDesign, SolvedTree } from '../trees';
import type { After, Moves, NewRoot, SweepBase } from './after';
import { lazily } from './effects';
import type { FailedTrees } from './effects';
import type { Effect, Hit } from './tree-effects';
import type { Element } from './elements';
import { withFailed } from './elements';
import { hostVlansHit, isWhole, partsOfVlan } from './reach';
import type { VlanParts } from './reach';
import { endsOfAll, treeSeconds } from './outage';

/** The design with the failure, solved: each tree as it is asked for. */
function solvedWith({ solved: { trees, solvedCount }, effects }: SweepBase, failed: Design, found: FailedTrees) {
  const topology = { ...found.topology(), design: failed };
  const places = new Map(effects.classes.flatMap((of, c) => of.trees.map((t) => [t, c] as const)));
  const own = trees.map((of): SolvedTree => {
    const place = places.get(of)!;
    return {
      ...of,
      topology,
      get outcome() {
        return found.outcome(place);
      },
    };
  });
  return { topology, trees: own, byId: new Map(own.map((t) => [t.tree.id, t])), solvedCount };
}

/** Trees in which a port has another role, and such ports, those that went down with what failed left out. */
function movedBy({ effects: { classes }, solved }: SweepBase, effects: readonly Effect[]): Moves['moved'] {
  const counted = new Uint8Array(solved.topology.ports.length);
  let [trees, ports] = [0, 0];
  effects.forEach((effect, c) => {
    let moves = false;
    for (let i = 0; i < effect.ports.length; i++) {
      if (effect.roles[i] === ROLE.disabled) continue;
      moves = true;
      const p = effect.ports[i]!;
      if (counted[p]) continue;
      counted[p] = 1;
      ports++;
    }
    if (moves) trees += classes[c]!.trees.length;
  });
  return { trees, ports };
}

function newRoots({ effects: { classes }, solved }: SweepBase, effects: readonly Effect[]): NewRoot[] {
  const { switches } = solved.topology.design;
  const idOf = (root: number) => switches[root]?.id ?? null;
  const after = new Map<string, NewRoot>();
  effects.forEach(({ root }, c) => {
    const before = classes[c]!.roots[0] ?? -1;
    if (root === before) return;
    for (const { tree } of classes[c]!.trees)
      after.set(tree.id, { tree: tree.id, before: idOf(before), after: idOf(root) });
  });
  return after.size === 0 ? [] : solved.trees.flatMap(({ tree }) => after.get(tree.id) ?? []);
}

/** What moved in a tree, by ids. */
function portsMoved({ topology: { ports } }: SolvedDesign, like: SolvedTree, effect: Effect): PortChange[] {
  return Array.from(effect.ports, (p, i) => {
    const { id, switch: at } = ports[p]!.element;
    return { id, switch: at, before: ROLES[like.outcome.role[p]!]!, after: ROLES[effect.roles[i]!]! };
  });
}

/** How long each tree takes to settle, which is the same with a port more that fails and that it has no part in. */
function settling(base: SweepBase, elements: readonly Element[], effects: readonly Effect[], timers: Moves['timers']) {
  const { solved } = base;
  const { design } = solved.topology;
  const gone = lazily(() => endsOfAll(design, elements));
  return effects.reduce((worst, effect, c) => {
    if (effect.ports.length === 0) return worst;
    if (effect.seconds === undefined) {
      const ports = portsMoved(solved, base.effects.classes[c]!.like, effect);
      const rootAfter = design.switches[effect.root]?.id ?? null;
      effect.seconds = ports.some((p) => p.after !== 'disabled')
        ? treeSeconds(design, { ports, rootAfter }, gone(), timers)
        : 0;
    }
    return Math.max(worst, effect.seconds);
  }, 0);
}

/** Parts of the VLANs that can go other ways than before. */
function partsWith(base: SweepBase, found: FailedTrees, elements: readonly Element[], after: () => SolvedDesign) {
  const hosts = hostVlansHit(base.solved.topology.design, elements);
  const walk = (parts: VlanParts) => partsOfVlan(after(), parts.vlans, parts);
  const walkOnce = (hit: Hit, parts: VlanParts) => {
    let own = base.known.walks.get(hit);
    if (!own) base.known.walks.set(hit, (own = new Map()));
    let walked = own.get(parts);
    if (!walked) own.set(parts, (walked = walk(parts)));
    return walked;
  };
  return base.parts.flatMap((parts) => {
    if (hosts.size > 0 && parts.vlans.some((v) => hosts.has(v))) return walk(parts);
    const hit = found.hits[base.effects.classOf(parts.vlans[0]!)]!;
    // Where all switches that carry a VLAN are joined by its tree, they stay so while they have its root.
    const stays = isWhole(base.solved, parts) ? !hit.parted : found.down.bridges.size === 0 && !hit.hit;
    return stays ? [] : walkOnce(hit, parts);
  });
}

/** Taken on from the design as it is; null where that cannot be done. */
export function takenOn(base: SweepBase, elements: readonly Element[]): After | null {
  const found = base.effects.of(elements);
  if (!found) return null;
  const { design } = base.solved.topology;
  const failed = lazily(() => withFailed(design, elements));
  const solved = lazily(() => solvedWith(base, failed(), found));
  return {
    failed,
    solved,
    parts: partsWith(base, found, elements, solved),
    moves: () => {
      const effects = found.effects();
      const roots = effects.map((e) => e.root);
      const timers = () => timersUnder(design.switches, roots);
      return {
        roots: newRoots(base, effects),
        moved: movedBy(base, effects),
        longestPath: effects.reduce((most, { diameter }) => Math.max(most, diameter.links), 0),
        seconds: () => settling(base, elements, effects, timers),
        timers,
      };
    },
  };
}
