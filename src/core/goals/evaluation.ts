/** Whether a condition holds in an outcome, and in one sentence why not. */
import { peersOf, walkFrom } from '../network';
import { forwardsRole, ROLES, ROLE } from '../trees';
import type { Topology, TreeOutcome, TreeProblem } from '../trees';
import type { Want } from './conditions';
import { count } from '../standard';

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

/** Null when the condition holds, else why it does not. */
export function breach(of: Case, want: Want): string | null {
  const { topology, outcome, problem } = of;
  const name = (bridge: number) => topology.design.switches[bridge]!.name;
  switch (want.kind) {
    case 'root': {
      const root = outcome.root[want.bridge]!;
      if (root < 0)
        return `${name(want.bridge)} ${topology.design.switches[want.bridge]!.off ? 'is off' : 'is not in this tree'}`;
      if (root !== want.bridge) return `${name(root)} is root`;
      if (want.next === null) return null;
      const next = successor(of, root);
      if (next === want.next) return null;
      return next < 0 ? 'no switch comes next' : `${name(next)} comes next`;
    }
    case 'cut': {
      const role = outcome.role[want.port]!;
      return role === ROLE.alternate || role === ROLE.backup
        ? null
        : `the port is ${ROLES[role] === 'none' ? 'not in the tree' : ROLES[role] === 'disabled' ? 'down' : ROLES[role]}`;
    }
    case 'carry': {
      if (carries(of, want.port) === want.yes) return null;
      if (!want.yes) return 'the link carries it too';
      const role = ROLES[outcome.role[want.port]!]!;
      if (role === 'none') return 'the port does not carry it';
      if (role === 'disabled') return 'the link is down';
      const far = farPort(of, want.port);
      const at = forwardsRole(outcome.role[want.port]) ? far : want.port;
      return at < 0 ? 'the far end has no switch' : `the link is blocked at ${name(topology.portBridge[at]!)}`;
    }
    case 'path': {
      const way = wayBetween(of, want.from, want.to);
      if (way.length === 0) return 'there is no path';
      if (want.avoid !== null && way.includes(want.avoid)) return `the path crosses ${name(want.avoid)}`;
      const hops = way.length - 1;
      return want.atMost !== null && hops > want.atMost ? `the path has ${count(hops, 'hop')}` : null;
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
      return `${name(who)} would come before ${name(beaten[0]!)}`;
    }
  }
}
