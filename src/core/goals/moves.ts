/** Settings worth trying for a condition that does not hold: each option is one move, or a few that belong together. */
import { orderPriorities } from '../analysis';
import { BRIDGE_PRIORITY, COST_RANGE, PORT_PRIORITY, splitPortId } from '../standard';
import { forwardsRole, ROLE } from '../trees';
import { farPort, wayBetween } from './evaluation';
import type { Case } from './evaluation';
import type { Lab, Move } from './trial';
import type { Want } from './conditions';
import { forEachNeighbour, portsOfBridge, portsOnLan, upstream } from '../network';

export type Option = readonly Move[];

const HIGHEST = 15;
const MOST_ANCESTORS = 4;
const MOST_ROUTES = 5;

/** Priorities that put roots, successors and last tiers into the order that all conditions of the tree want. */
export function orderOption(of: Case, wants: readonly Want[]): Option | null {
  const { bridgePriority, bridgeTakesPart } = of.problem;
  const roots = wants.filter((w) => w.kind === 'root');
  const last = new Set(wants.flatMap((w) => (w.kind === 'last' ? w.bridges : [])));
  const first = roots[0];
  const next = roots.find((w) => w.next !== null)?.next ?? null;
  const ranked = [...(first ? [first.bridge] : []), ...(next === null ? [] : [next])];
  const members = [...bridgePriority.keys()].filter((b) => bridgeTakesPart[b]);
  const groups = [
    ...ranked.map((b) => [b]),
    members.filter((b) => !ranked.includes(b) && !last.has(b)),
    members.filter((b) => !ranked.includes(b) && last.has(b)),
  ];
  const values = orderPriorities(groups.map((g) => g.map((b) => bridgePriority[b]!)));
  if (!values) return null;
  return groups.flatMap((group, i) =>
    group.flatMap((index, j) => {
      const value = values[i]![j]!;
      return value === bridgePriority[index] ? [] : [{ field: 'bridgePriority' as const, index, value }];
    }),
  );
}

/** Puts switches behind all others, except those whose identifier is behind already. */
function pushBack(of: Case, bridges: readonly number[]): Option | null {
  const { bridgePriority, bridgeTakesPart } = of.problem;
  const { rank } = of.outcome;
  const last = new Set(bridges);
  const rivals = [...rank.keys()].filter((b) => bridgeTakesPart[b] && !last.has(b));
  const worst = rivals.reduce((m, b) => (m < 0 || rank[b]! > rank[m]! ? b : m), -1);
  if (worst < 0) return null;
  const value = bridgePriority[worst]! + BRIDGE_PRIORITY.step;
  if (value > BRIDGE_PRIORITY.max) return null;
  return bridges
    .filter((b) => bridgeTakesPart[b] && rank[b]! < rank[worst]!)
    .map((index) => ({ field: 'bridgePriority' as const, index, value }));
}

class Options {
  readonly found: Option[] = [];
  constructor(
    private readonly lab: Lab,
    readonly of: Case,
    /** Whether some goal already says who is root. */
    private readonly rootIsGiven: boolean,
  ) {}

  /** Makes a bridge the root, which turns whole branches round. */
  reroot(bridge: number): void {
    if (this.rootIsGiven || this.of.outcome.root[bridge] === bridge) return;
    const order = orderOption(this.of, [{ kind: 'root', bridge, next: null }]);
    if (order && order.length > 0) this.found.push(order);
  }

  private get design() {
    return this.of.topology.design;
  }

  cost(port: number, value: number): void {
    const s = this.design.switches[this.of.topology.portBridge[port]!]!;
    const { min, max } = COST_RANGE[s.costScale ?? this.design.costScale];
    const legal = Math.min(max, Math.max(min, Math.round(value)));
    if (legal !== this.lab.cost(this.of, port)) this.found.push([{ field: 'portCost', index: port, value: legal }]);
  }

  portPriority(port: number, value: number): void {
    const legal = Math.min(PORT_PRIORITY.max, Math.max(0, value));
    if (legal !== splitPortId(this.of.problem.portId[port]!).priority)
      this.found.push([{ field: 'portPriority', index: port, value: legal }]);
  }

  /** A priority that ranks a bridge just before or behind another, where that leaves the root alone. */
  bridgePriority(bridge: number, value: number): void {
    if (value < 0 || value > HIGHEST * BRIDGE_PRIORITY.step) return;
    if (value !== this.of.problem.bridgePriority[bridge])
      this.found.push([{ field: 'bridgePriority', index: bridge, value }]);
  }

  /** Ranks `better` before `worse` where a tie between them decides. */
  tie(better: number, worse: number): void {
    const { bridgePriority } = this.of.problem;
    this.bridgePriority(better, bridgePriority[worse]! - BRIDGE_PRIORITY.step);
    this.bridgePriority(worse, bridgePriority[better]! + BRIDGE_PRIORITY.step);
  }

  /** Raises by `delta` the cost of the way of a bridge towards the root, at itself or further up. */
  raiseWay(bridge: number, delta: number): void {
    const { outcome, topology } = this.of;
    for (let b = bridge, n = 0; n < MOST_ANCESTORS; n++) {
      const port = outcome.rootPort[b]!;
      if (port < 0) return;
      this.cost(port, this.lab.cost(this.of, port) + delta);
      b = upstream(topology, outcome, b);
    }
  }

  lowerWay(bridge: number, delta: number): void {
    const { outcome, topology } = this.of;
    for (let b = bridge, n = 0; n < MOST_ANCESTORS; n++) {
      const port = outcome.rootPort[b]!;
      if (port < 0) return;
      const now = this.lab.cost(this.of, port);
      if (now > delta) this.cost(port, now - delta);
      b = upstream(topology, outcome, b);
    }
  }

  /** Makes `port` the root port of its bridge, which hears `far` there. */
  makeRootPort(port: number, far: number): void {
    const { outcome, topology, problem } = this.of;
    const bridge = topology.portBridge[port]!;
    const up = topology.portBridge[far]!;
    if (bridge === up || outcome.root[bridge] === bridge) return;
    const [own, theirs] = [outcome.rootPathCost[bridge]!, outcome.rootPathCost[up]!];
    const through = theirs + this.lab.cost(this.of, port);
    const held = outcome.rootPort[bridge]!;
    if (through > own) {
      if (own - theirs - 1 >= 1) this.cost(port, own - theirs - 1);
      this.raiseWay(bridge, through - own + 1);
      return;
    }
    // The costs are equal: the sender decides, then its port, then one's own.
    const from = outcome.designatedPort[topology.portLan[held]!]!;
    const before = topology.portBridge[from]!;
    if (before !== up) this.tie(up, before);
    else {
      const theirPriority = splitPortId(problem.portId[from]!).priority;
      this.portPriority(far, theirPriority - PORT_PRIORITY.step);
      this.portPriority(from, splitPortId(problem.portId[far]!).priority + PORT_PRIORITY.step);
    }
    this.cost(port, this.lab.cost(this.of, port) - 1);
    this.cost(held, this.lab.cost(this.of, held) + 1);
  }

  /** Makes another port than `port` the root port of its bridge. */
  leaveRootPort(port: number): void {
    const { outcome, topology } = this.of;
    const { portLan, portBridge } = topology;
    const bridge = portBridge[port]!;
    for (const other of portsOfBridge(topology, bridge)) {
      if (other === port || outcome.role[other] !== ROLE.alternate) continue;
      const from = outcome.designatedPort[portLan[other]!]!;
      const through = outcome.rootPathCost[portBridge[from]!]! + this.lab.cost(this.of, other);
      this.cost(port, this.lab.cost(this.of, port) + (through - outcome.rootPathCost[bridge]!) + 1);
      this.makeRootPort(other, from);
    }
    this.cost(port, this.lab.cost(this.of, port) * 10);
    this.cost(port, Infinity);
  }

  /** Makes the bridge of `far` the designated one on the LAN where `port` is so far. */
  yieldDesignation(port: number, far: number): void {
    const { outcome, topology } = this.of;
    const [own, other] = [topology.portBridge[port]!, topology.portBridge[far]!];
    const lead = outcome.rootPathCost[other]! - outcome.rootPathCost[own]!;
    if (lead === 0) this.tie(other, own);
    this.raiseWay(own, lead + 1);
    this.lowerWay(other, lead + 1);
    if (lead > 0) {
      this.raiseWay(own, lead);
      this.lowerWay(other, lead);
    }
  }
}

/** Short ways between two bridges that may be used, by hops: lists of ports, both ends of each step. */
export function routes(of: Case, from: number, to: number, atMost: number, avoid: number | null): [number, number][][] {
  const { portBridge } = of.topology;
  const found: [number, number][][] = [];
  let open: { at: number; seen: number[]; steps: [number, number][] }[] = [{ at: from, seen: [from], steps: [] }];
  for (let depth = 0; depth <= atMost && open.length > 0 && found.length < MOST_ROUTES; depth++) {
    const next: typeof open = [];
    for (const { at, seen, steps } of open) {
      if (at === to) {
        found.push(steps);
        continue;
      }
      forEachNeighbour(of.topology, of.problem.portTakesPart, at, (out, into) => {
        const bridge = portBridge[into]!;
        if (bridge === avoid || seen.includes(bridge)) return;
        next.push({ at: bridge, seen: [...seen, bridge], steps: [...steps, [out, into]] });
      });
    }
    open = next.slice(0, 400);
  }
  return found.slice(0, MOST_ROUTES);
}

/** By the ports of the tree, which no setting changes, and by condition. */
const knownRoutes = new WeakMap<Uint8Array, WeakMap<Want, { most: number; found: [number, number][][] }>>();

/** The routes of a condition, looked for once. */
function routesFor(of: Case, want: Extract<Want, { kind: 'path' }>, most: number): [number, number][][] {
  const ofTree = knownRoutes.get(of.problem.portTakesPart) ?? new WeakMap();
  knownRoutes.set(of.problem.portTakesPart, ofTree);
  const known = ofTree.get(want);
  if (known && known.most === most) return known.found;
  const found = routes(of, want.from, want.to, most, want.avoid);
  ofTree.set(want, { most, found });
  return found;
}

const passes = ({ outcome }: Case, port: number) => forwardsRole(outcome.role[port]);

/** How many steps of the best route are not open yet; 0 when one is. */
export function stepsMissing(of: Case, want: Extract<Want, { kind: 'path' }>): number {
  const all = routesFor(of, want, want.atMost ?? of.outcome.rank.length);
  const missing = all.map((r) => r.filter(([a, b]) => !passes(of, a) || !passes(of, b)).length);
  return missing.length === 0 ? Infinity : Math.min(...missing);
}

const MOST_AROUND = 6;

/** A bridge and some of its neighbours. */
function around({ topology }: Case, bridge: number): number[] {
  const { portLan, portBridge } = topology;
  const found = new Set([bridge]);
  for (const port of portsOfBridge(topology, bridge)) {
    if (found.size >= MOST_AROUND) break;
    for (const other of portsOnLan(topology, portLan[port]!)) found.add(portBridge[other]!);
  }
  return [...found];
}

function carry(options: Options, port: number, far: number): void {
  options.makeRootPort(port, far);
  options.makeRootPort(far, port);
}

/** Options for a condition that does not hold in a case. */
export function optionsFor(lab: Lab, of: Case, want: Want, all: readonly Want[]): Option[] {
  const options = new Options(
    lab,
    of,
    all.some((w) => w.kind === 'root'),
  );
  switch (want.kind) {
    case 'root':
    case 'last': {
      const apart = want.kind === 'root' ? orderOption(of, [want]) : pushBack(of, want.bridges);
      return [apart, orderOption(of, all)].filter((o) => o !== null && o.length > 0) as Option[];
    }
    case 'carry': {
      const far = farPort(of, want.port);
      if (far < 0) return [];
      if (want.yes) {
        carry(options, want.port, far);
        for (const port of [want.port, far]) options.reroot(of.topology.portBridge[port]!);
      } else for (const port of [want.port, far]) if (of.outcome.role[port] === ROLE.root) options.leaveRootPort(port);
      return options.found;
    }
    case 'cut': {
      const far = farPort(of, want.port);
      const role = of.outcome.role[want.port];
      if (far < 0) return [];
      if (role === ROLE.root) options.leaveRootPort(want.port);
      if (role === ROLE.designated) {
        options.yieldDesignation(want.port, far);
        if (of.outcome.role[far] === ROLE.root) options.leaveRootPort(far);
        // A root has no blocked port: another switch must become root, at best across the link or behind.
        for (const bridge of around(of, of.topology.portBridge[far]!)) options.reroot(bridge);
      }
      return options.found;
    }
    case 'path': {
      const most = want.atMost ?? wayBetween(of, want.from, want.to).length + 3;
      for (const route of routesFor(of, want, most))
        for (const [a, b] of route) if (!passes(of, a) || !passes(of, b)) carry(options, a, b);
      for (const bridge of [want.from, want.to]) options.reroot(bridge);
      return options.found;
    }
  }
}
