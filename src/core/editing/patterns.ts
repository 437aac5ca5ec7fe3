/** Patterns to start from: who stands where and who is cabled to whom. */
import { addElement } from '../design';
import type { Design, Edit, Switch, Vlan } from '../design';
import { parseVlanRanges } from '../standard';
import { Macs, Names } from './names';
import type { Chosen } from './part';
import { Wiring } from './wiring';
import type { NewId } from './wiring';

export const PATTERNS = [
  { id: 'triangle', name: 'Triangle', count: null },
  { id: 'square', name: 'Square', count: null },
  { id: 'ring', name: 'Ring', count: { label: 'Switches', min: 3, max: 60, start: 6 } },
  { id: 'pyramid', name: 'Pyramid', count: { label: 'Rows', min: 2, max: 8, start: 3 } },
  { id: 'collapsed-core', name: 'Collapsed core', count: { label: 'Closets', min: 1, max: 60, start: 6 } },
  {
    id: 'three-tier',
    name: 'Core – distribution – access',
    count: { label: 'Closets', min: 1, max: 120, start: 8 },
  },
  { id: 'mesh', name: 'Full mesh', count: { label: 'Switches', min: 3, max: 16, start: 5 } },
] as const;
export type PatternId = (typeof PATTERNS)[number]['id'];
type Tier = NonNullable<Switch['tier']>;

export interface PatternRequest {
  readonly pattern: PatternId;
  readonly count: number;
  /** First parts of the names, by tier. */
  readonly names: Readonly<Record<Tier, string>>;
  /** Mb/s between core and distribution switches, and towards access switches. */
  readonly coreSpeed: number;
  readonly accessSpeed: number;
  /** VLANs that all links carry, as ranges; empty for all. */
  readonly vlans: string;
  /** Where the top left corner of the pattern goes. */
  readonly x: number;
  readonly y: number;
}

interface Node {
  readonly tier: Tier;
  readonly x: number;
  readonly y: number;
}
interface Plan {
  readonly nodes: readonly Node[];
  readonly edges: readonly (readonly [number, number])[];
}

const GAP = { x: 190, y: 160 } as const;
const range = (n: number) => [...Array(n).keys()];
const row = (tier: Tier, count: number, y: number, width: number): Node[] =>
  range(count).map((i) => ({ tier, x: width * ((i + 0.5) / count), y }));

/** Nodes on a circle, the first at the top. */
function circle(count: number): Node[] {
  const radius = Math.max(150, (count * GAP.x) / (2 * Math.PI));
  return range(count).map((i) => {
    const angle = (2 * Math.PI * i) / count - Math.PI / 2;
    const tier = i < Math.min(2, count - 1) ? 'core' : 'access';
    return { tier, x: radius + radius * Math.cos(angle), y: radius + radius * Math.sin(angle) };
  });
}

const closed = (n: number) => range(n).map((i) => [i, (i + 1) % n] as const);

const PLANS: Record<PatternId, (count: number) => Plan> = {
  triangle: () => ({ nodes: circle(3), edges: closed(3) }),
  square: () => ({
    nodes: [
      { tier: 'core', x: 0, y: 0 },
      { tier: 'core', x: 2 * GAP.x, y: 0 },
      { tier: 'access', x: 2 * GAP.x, y: 1.5 * GAP.y },
      { tier: 'access', x: 0, y: 1.5 * GAP.y },
    ],
    edges: closed(4),
  }),
  ring: (n) => ({ nodes: circle(n), edges: closed(n) }),
  mesh: (n) => ({
    nodes: circle(n),
    edges: range(n).flatMap((i) => range(i).map((j) => [j, i] as const)),
  }),
  pyramid: (rows) => {
    const width = rows * GAP.x;
    const first = (r: number) => (r * (r + 1)) / 2;
    const nodes = range(rows).flatMap((r) => {
      const tier: Tier = r === 0 ? 'core' : r === rows - 1 ? 'access' : 'distribution';
      return range(r + 1).map((i) => ({ tier, x: (width - r * GAP.x) / 2 + i * GAP.x, y: r * GAP.y }));
    });
    const edges = range(rows - 1).flatMap((r) =>
      range(r + 1).flatMap((i) => [0, 1].map((d) => [first(r) + i, first(r + 1) + i + d] as const)),
    );
    return { nodes, edges };
  },
  'collapsed-core': (closets) => {
    const width = Math.max(2, closets) * GAP.x;
    return {
      nodes: [...row('core', 2, 0, width), ...row('access', closets, 1.5 * GAP.y, width)],
      edges: [[0, 1], ...range(closets).flatMap((i) => [0, 1].map((core) => [core, 2 + i] as const))],
    };
  },
  'three-tier': (closets) => {
    // A pair of distribution switches for every eight closets.
    const pairs = Math.max(1, Math.ceil(closets / 8));
    const width = Math.max(2 * pairs, closets) * GAP.x;
    const distribution = (pair: number, i: number) => 2 + 2 * pair + i;
    const firstCloset = 2 + 2 * pairs;
    return {
      nodes: [
        ...row('core', 2, 0, width),
        ...row('distribution', 2 * pairs, 1.2 * GAP.y, width),
        ...row('access', closets, 2.6 * GAP.y, width),
      ],
      edges: [
        [0, 1],
        ...range(pairs).flatMap((p) => [
          ...[0, 1].flatMap((i) => [0, 1].map((core) => [core, distribution(p, i)] as const)),
          [distribution(p, 0), distribution(p, 1)] as const,
        ]),
        ...range(closets).flatMap((c) => {
          const pair = Math.floor((c * pairs) / closets);
          return [0, 1].map((i) => [distribution(pair, i), firstCloset + c] as const);
        }),
      ],
    };
  },
};

/** What a pattern consists of, for a small drawing of it before it is made. */
export const planOf = (pattern: PatternId, count: number): Plan => PLANS[pattern](count);

/** Edits that lay a pattern out in a design, with names that are free and the VLANs that the design lacks. */
export function drawPattern(design: Design, request: PatternRequest, newId: NewId): { edits: Edit[]; made: Chosen[] } {
  const { nodes, edges } = planOf(request.pattern, request.count);
  const [names, macs] = [new Names(design.switches.map((s) => s.name)), new Macs(design)];
  const parsed = parseVlanRanges(request.vlans);
  const vlans = parsed.ok ? parsed.vlans : [];
  const known = new Set(design.vlans.map((v) => v.number));
  const newVlans = vlans.filter((v) => !known.has(v));
  const left = Math.min(...nodes.map((n) => n.x));
  const top = Math.min(...nodes.map((n) => n.y));
  const switches = nodes.map(({ tier, x, y }): Switch => ({
    id: newId('s'),
    name: names.claim(`${request.names[tier]}-1`),
    mac: macs.next(),
    tier,
    x: Math.round(request.x + x - left),
    y: Math.round(request.y + y - top),
  }));
  const wiring = new Wiring(design, newId);
  const settings = vlans.length > 0 ? { vlans: request.vlans.trim() } : {};
  for (const [a, b] of edges) {
    const speed = [a, b].some((i) => nodes[i]!.tier === 'access') ? request.accessSpeed : request.coreSpeed;
    const [p, q] = [a, b].map((i) => wiring.newPort(switches[i]!.id, { speed, settings }));
    wiring.link({ port: p! }, { port: q! });
  }
  return {
    edits: [
      ...newVlans.map((number) => addElement('vlan', { id: newId('v'), number } satisfies Vlan)),
      ...switches.map((s) => addElement('switch', s)),
      ...wiring.edits,
    ],
    made: switches.map(({ id }) => ({ kind: 'switch', id })),
  };
}
