/** Whether a condition holds in an outcome, and in one sentence why not. */
import { breachMessages as say } from '../messages';
import { peersOf, walkFrom } from '../network';
import { forwardsRole, ROLE, ROLES } from '../trees';
import type { Topology, TreeOutcome, TreeProblem } from '../trees';
import type { Want } from './conditions';

/** A tree as the conditions see it: solved for real, or tried out. */
export interface Case {
  readonly topology: Topology;
  readonly problem: TreeProblem;
  readonly outcome: TreeOutcome;
}

/** The other port that a port's frames reach, on a LAN of two; on a shared one the designated port. */
export function farPort({ topology, problem, outcome }: Case, port: number): number {
  const [first, ...more] = peersOf(topology, port).filter((p) => problem.portTakesPart[p]);
  if (first === undefined) return -1;
  const designated = outcome.designatedPort[topology.portLan[port]!]!;
  return more.includes(designated) ? designated : first;
}

/** Bridges from `from` to `to` along forwarding ports; empty when they are apart. */
export function wayBetween({ topology, outcome }: Case, from: number, to: number): number[] {
  const reached = walkFrom(topology, from, (port) => forwardsRole(outcome.role[port]));
  if (!reached.has(to)) return [];
  const way: number[] = [];
  for (let b = to; b >= 0; b = reached.get(b)!.via) way.unshift(b);
  return way;
}

/** The next best bridge of the part of the network that a root has; −1 for none. */
export function successor({ outcome }: Case, root: number): number {
  let best = -1;
  outcome.root.forEach((r, b) => {
    if (r === root && b !== root && (best < 0 || outcome.rank[b]! < outcome.rank[best]!)) best = b;
  });
  return best;
}

const carries = (of: Case, port: number): boolean => {
  const far = farPort(of, port);
  return far >= 0 && forwardsRole(of.outcome.role[port]) && forwardsRole(of.outcome.role[far]);
};

/** What blocks a port of a link that should carry. */
function blockedBy({ outcome }: Case, port: number): 'link-blocked' | 'link-silent' | 'link-too-deep' {
  if (outcome.role[port] !== ROLE.disputed) return 'link-blocked';
  return outcome.silent?.includes(port) ? 'link-silent' : 'link-too-deep';
}

/** The one of two bridges that lies deeper than the word of the better root goes; −1 where that is not what parts them. */
function tooDeep({ outcome }: Case, from: number, to: number): number {
  const [a, b] = [outcome.root[from]!, outcome.root[to]!];
  if (!outcome.spent || a < 0 || b < 0 || a === b) return -1;
  return outcome.rank[a]! < outcome.rank[b]! ? to : from;
}

/** Root of the other one. */
const rootOver = ({ outcome }: Case, { from, to }: { from: number; to: number }, deep: number): number =>
  outcome.root[deep === to ? from : to]!;

/** Null when the condition holds, else why it does not. */
export function breach(of: Case, want: Want): string | null {
  const { topology, outcome, problem } = of;
  const name = (bridge: number) => topology.design.switches[bridge]!.name;
  switch (want.kind) {
    case 'root': {
      const root = outcome.root[want.bridge]!;
      const own = { name: name(want.bridge) };
      if (root < 0)
        return topology.design.switches[want.bridge]!.off ? say['switch-off'](own) : say['switch-outside'](own);
      if (root !== want.bridge) return say['other-root']({ name: name(root) });
      if (want.next === null) return null;
      const next = successor(of, root);
      if (next === want.next) return null;
      return next < 0 ? say['no-next']() : say['other-next']({ name: name(next) });
    }
    case 'cut': {
      const role = ROLES[outcome.role[want.port]!]!;
      if (role === 'alternate' || role === 'backup' || role === 'disputed') return null;
      if (role === 'none') return say['port-outside']();
      return role === 'disabled' ? say['port-down']() : say['port-role']({ role });
    }
    case 'carry': {
      if (carries(of, want.port) === want.yes) return null;
      if (!want.yes) return say['link-carries-too']();
      const role = ROLES[outcome.role[want.port]!]!;
      if (role === 'none') return say['port-lacks-vlan']();
      if (role === 'disabled') return say['link-down']();
      const far = farPort(of, want.port);
      const at = forwardsRole(outcome.role[want.port]) ? far : want.port;
      return at < 0 ? say['no-far-switch']() : say[blockedBy(of, at)]({ name: name(topology.portBridge[at]!) });
    }
    case 'path': {
      const way = wayBetween(of, want.from, want.to);
      if (way.length === 0) {
        const deep = tooDeep(of, want.from, want.to);
        return deep < 0
          ? say['no-path']()
          : say['no-path-too-deep']({ name: name(deep), root: name(rootOver(of, want, deep)) });
      }
      if (want.avoid !== null && way.includes(want.avoid)) return say['path-crosses']({ name: name(want.avoid) });
      const hops = way.length - 1;
      return want.atMost !== null && hops > want.atMost ? say['path-too-long']({ hops }) : null;
    }
    case 'last': {
      const tier = new Set(want.bridges);
      const taking = (b: number) => problem.bridgeTakesPart[b] === 1;
      const best = want.bridges.filter(taking).reduce((m, b) => Math.min(m, outcome.rank[b]!), Infinity);
      const rivals = [...outcome.rank.keys()].filter((b) => !tier.has(b) && taking(b));
      if (rivals.length === 0) return null;
      const worst = rivals.reduce((m, b) => Math.max(m, outcome.rank[b]!), -1);
      if (best > worst) return null;
      const who = want.bridges.find((b) => outcome.rank[b] === best)!;
      const beaten = rivals.filter((b) => outcome.rank[b]! > best);
      return say['comes-before']({ name: name(who), other: name(beaten[0]!) });
    }
  }
}
