/** What a cable between two switches would cost, and where none can be laid. */
import { freePorts } from '../design';
import type { CableCost, CablePlace, Design, Port, Switch } from '../design';
import type { VlanGraph } from './vlan-graphs';

/** Of a cable that no row speaks of. */
const USUAL_COST = 1;
/** Added at an end that has no free port: a module, or another switch. */
export const PORT_COST = 10;
/** How much a row says of a place by naming it: two groups say less than a switch and any tier. */
const SAYS = { switch: 4, group: 2, tier: 1 } as const;
/** What only decides between cables that cost the same: access switches last, those that carry most VLANs first. */
const ACCESS_COST = 0.01;
const BY_CARRIED = 1 / 500_000;

/** Ports for a cable to another switch: free ones that are up and not meant for a host. */
export const openPorts = (design: Design, at: string): Port[] =>
  freePorts(design, at).filter((p) => !p.down && !p.edge);

/** How much a place says of a switch; 0 where it is another. */
function says(place: CablePlace, { id, group, tier }: Switch): number {
  if ('switch' in place) return place.switch === id ? SAYS.switch : 0;
  if ('group' in place) return place.group === group ? SAYS.group : 0;
  return place.tier === tier ? SAYS.tier : 0;
}

/** How much a row says of a pair of switches, either way round; 0 where it does not speak of it. */
function speaks({ from, to }: CableCost, a: Switch, b: Switch): number {
  const of = (x: Switch, y: Switch) => (says(from, x) > 0 && says(to, y) > 0 ? says(from, x) + says(to, y) : 0);
  return Math.max(of(a, b), of(b, a));
}

/** Cost of the cable alone; infinite where none can be laid. */
export function cableCostOf(rows: readonly CableCost[], a: Switch, b: Switch): number {
  let [most, cost] = [0, USUAL_COST];
  for (const row of rows) {
    const said = speaks(row, a, b);
    const own = row.cost ?? Infinity;
    if (said === 0 || said < most) continue;
    cost = said > most ? own : Math.max(cost, own);
    most = said;
  }
  return cost;
}

/** Prices of new cables in one design, by indexes of switches. */
export class Laying {
  readonly switches: number;
  private readonly ends: Float64Array;
  private readonly kinds: string[];
  /** Whether cables cost the same wherever they lie. */
  readonly alike: boolean;
  constructor(
    private readonly design: Design,
    graphs: readonly VlanGraph[],
  ) {
    const rows = design.cableCosts;
    this.switches = design.switches.length;
    this.alike = rows.length === 0;
    const carried = new Int32Array(this.switches);
    for (const { nodes, vlans } of graphs) for (const n of nodes) if (n < carried.length) carried[n]! += vlans.length;
    this.ends = Float64Array.from(design.switches, (s, i) => {
      const free = openPorts(design, s.id).length > 0;
      return (free ? 0 : PORT_COST) + (s.tier === 'access' ? ACCESS_COST : 0) - carried[i]! * BY_CARRIED;
    });
    const named = new Set(rows.flatMap(({ from, to }) => [from, to].flatMap((p) => ('switch' in p ? [p.switch] : []))));
    this.kinds = design.switches.map((s) => `${s.tier ?? ''} ${named.has(s.id) ? s.id : ''} ${s.group ?? ''}`);
  }

  /** What a cable costs in all; infinite where none can be laid. */
  price(a: number, b: number): number {
    const { switches, cableCosts } = this.design;
    return cableCostOf(cableCosts, switches[a]!, switches[b]!) + this.ends[a]! + this.ends[b]!;
  }

  can(a: number, b: number): boolean {
    return this.price(a, b) < Infinity;
  }

  /** Of some switches the best end of each kind: the others are no cheaper wherever the cable goes. */
  bestEnds(nodes: readonly number[]): number[] {
    const best = new Map<string, number>();
    for (const n of nodes) {
      const key = this.alike ? '' : this.kinds[n]!;
      const known = best.get(key);
      if (known === undefined || this.ends[n]! < this.ends[known]!) best.set(key, n);
    }
    return [...best.values()];
  }

  /** The cheapest cable between two groups; null where none can be laid. */
  between(from: readonly number[], to: readonly number[]): { a: number; b: number } | null {
    let best: { a: number; b: number } | null = null;
    let least = Infinity;
    for (const a of from)
      for (const b of to) {
        const price = a === b ? Infinity : this.price(a, b);
        if (price < least) [best, least] = [{ a, b }, price];
      }
    return best;
  }
}
