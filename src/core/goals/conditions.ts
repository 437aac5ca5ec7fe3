/** What a goal asks of single trees: conditions on one outcome, shared by the check and by the proposals. */
import { goalMessages as say } from '../messages';
import { bundleById, hostById, linkAt, farEnd, portById, segmentAt, switchById } from '../design';
import type { Design, Goal, PlaceRef } from '../design';
import { vlanMembership } from '../standard';
import type { SolvedDesign, SolvedTree } from '../trees';

/** A condition on the outcome of one tree, by indices into the topology. */
export type Want =
  | { readonly kind: 'root'; readonly bridge: number; readonly next: number | null }
  | { readonly kind: 'cut'; readonly port: number }
  /** Whether frames pass between the two ports, or over the LAN of the one. */
  | { readonly kind: 'carry'; readonly port: number; readonly yes: boolean }
  | {
      readonly kind: 'path';
      readonly from: number;
      readonly to: number;
      readonly atMost: number | null;
      readonly avoid: number | null;
    }
  | { readonly kind: 'last'; readonly bridges: readonly number[] };

/** A goal whose references lead nowhere asks nothing: the sentence says what is gone. */
export type Wanted =
  | { readonly void: string }
  | { readonly void: null; readonly wants: readonly { readonly tree: SolvedTree; readonly want: Want }[] };

const gone = (what: string) => ({ void: say['void-gone']({ what }) });

/** The trees that carry any of the VLANs of a goal. */
export function treesOfGoal({ trees }: SolvedDesign, { vlans }: Pick<Goal, 'vlans'>): SolvedTree[] {
  if (vlans === 'all') return [...trees];
  const held = vlanMembership(vlans);
  return trees.filter((t) => t.tree.vlans.some((v) => held[v]));
}

/** The switch a place stands at: a host's is the one it is plugged into. */
function bridgeOf({ topology }: SolvedDesign, place: PlaceRef): number | null {
  if ('switch' in place) return topology.bridgeIndex.get(place.switch) ?? null;
  for (const link of topology.design.links)
    for (const [own, far] of [
      [link.a, link.b],
      [link.b, link.a],
    ] as const)
      if ('host' in own && own.host === place.host && 'port' in far)
        return topology.portBridge[topology.portIndex.get(far.port)!]!;
  return null;
}

const placeThere = (design: Design, place: PlaceRef) =>
  'host' in place ? hostById(design, place.host) !== undefined : switchById(design, place.switch) !== undefined;

/** What a goal asks, tree by tree. Load goals ask nothing of single trees. */
export function wantsOf(solved: SolvedDesign, goal: Goal): Wanted {
  const { design, bridgeIndex, portIndex } = solved.topology;
  const trees = treesOfGoal(solved, goal);
  if (trees.length === 0) return { void: say['void-no-tree']({ vlans: goal.vlans }) };
  const each = (want: Want) => ({ void: null, wants: trees.map((tree) => ({ tree, want })) });
  switch (goal.type) {
    case 'root': {
      const bridge = bridgeIndex.get(goal.switch);
      const next = goal.next === undefined ? null : bridgeIndex.get(goal.next);
      if (bridge === undefined || next === undefined) return gone('a switch');
      return each({ kind: 'root', bridge, next });
    }
    case 'never-root': {
      const bridges = [...design.switches.keys()].filter((b) => design.switches[b]!.tier === goal.tier);
      if (bridges.length === 0) return { void: say['void-no-tier']({ tier: goal.tier }) };
      return each({ kind: 'last', bridges });
    }
    case 'cut':
    case 'carries': {
      if (!portById(design, goal.port) && !bundleById(design, goal.port)) return gone('the port');
      const port = portIndex.get(goal.port);
      if (port === undefined) return { void: say['void-bundle-down']() };
      if (goal.type === 'cut') return each({ kind: 'cut', port });
      const link = linkAt(design, goal.port);
      const far = link && farEnd(link, goal.port);
      if (!link && !segmentAt(design, goal.port) && !bundleById(design, goal.port)) return gone('the link');
      if (far && 'host' in far) return { void: say['void-host']() };
      const own = trees.map((tree) => ({ tree, want: { kind: 'carry', port, yes: true } as const }));
      if (!goal.only) return { void: null, wants: own };
      const others = solved.trees.filter((t) => !trees.includes(t) && t.problem.portTakesPart[port]);
      return {
        void: null,
        wants: [...own, ...others.map((tree) => ({ tree, want: { kind: 'carry', port, yes: false } as const }))],
      };
    }
    case 'path': {
      if (!placeThere(design, goal.from) || !placeThere(design, goal.to)) return gone('an end');
      const avoid = goal.avoid === undefined ? null : bridgeIndex.get(goal.avoid);
      if (avoid === undefined) return gone('the switch to avoid');
      const [from, to] = [bridgeOf(solved, goal.from), bridgeOf(solved, goal.to)];
      if (from === null || to === null) return { void: say['void-not-cabled']() };
      return each({ kind: 'path', from, to, atMost: goal.atMost ?? null, avoid });
    }
    // What is left after a failure is no condition of a tree as it is.
    case 'stays-connected':
    case 'outage':
    case 'load-left':
    case 'load':
      return { void: null, wants: [] };
  }
}
