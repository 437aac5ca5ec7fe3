import { asMeant, asPair } from '../../demo/brackwater';
import { designsOver, everNamed } from '../../core/design';
import { portWords } from '../../core/trace';
import { rehearse } from '../../core/simulation';
import type { Trace } from '../../core/trace';
import { solveDesign } from '../../core/trees';
import type { SolvedDesign, SolvedTree } from '../../core/trees';
import { arrangeAsCabled } from '../chart/arrange';
import { frameOf } from '../chart/frame';
import { buildScene } from '../chart/scene';
import { solvedStands } from '../chart/stands';
import { inTree, keepingScenes, laneTree, standsAt } from './moment';
import { tickStep } from '../chart/time-lanes';
import { zoomed } from './Strip';
import { layoutOf, stretches } from './StripLanes';
import { rootRows } from './StripMarks';

const design = asMeant();
const trace = rehearse(design, {
  id: 's',
  name: 's',
  until: 30,
  events: [
    { id: 'a', at: 5, kind: 'link-down', link: 'quay-a:3--ticket-hall:1' },
    { id: 'b', at: 15, kind: 'root-off', vlan: 140 },
  ],
});

const OWN = 'vlan-110';

describe('lanes', () => {
  const ports = (first: string[] = []) =>
    layoutOf(trace, OWN, new Set(first), 0).rows.flatMap((r) => (r.kind === 'port' ? [r.lane.port] : []));
  test('stand below each other without touching, and leave ports out that did not change', () => {
    const { rows, bottom } = layoutOf(trace, OWN, new Set(), 10);
    const tops = rows.map((r) => r.top);
    expect(tops).toEqual([...tops].sort((a, b) => a - b));
    expect(new Set(tops).size).toBe(tops.length);
    expect(bottom).toBeGreaterThan(tops.at(-1)!);
    expect(ports()).toContain('ticket-hall:2');
    expect(ports()).not.toContain('gate:1');
  });
  test('those of the selection come first', () => {
    expect(ports(['ticket-hall:2'])[0]).toBe('ticket-hall:2');
    expect([...ports(['ticket-hall:2'])].sort()).toEqual([...ports()].sort());
  });
  test('of very many ports the first are shown, and the others counted', () => {
    const many: Trace = {
      ...trace,
      ports: Array.from({ length: 400 }, (_, i) => ({
        ...trace.ports.find((l) => l.spans.length > 1)!,
        port: `p${i}`,
        tree: OWN,
      })),
    };
    const { rows } = layoutOf(many, OWN, new Set(), 0);
    expect(rows.filter((r) => r.kind === 'port')).toHaveLength(150);
    expect(rows.at(-1)).toMatchObject({ kind: 'more', count: 250 });
  });
  test('trees whose root changed alike share a row, below that of the tree in view', () => {
    const rows = rootRows(trace, OWN);
    expect(rows[0]!.trees).toEqual([OWN]);
    expect(rows.slice(1).flatMap((r) => r.trees)).toEqual(expect.arrayContaining(['vlan-140', 'vlan-160']));
    expect(rows.length).toBeLessThan(1 + trace.roots.length);
  });
});

/** Where things are, and what the solver says, as the page has them before it comes to the moment. */
const baseOf = (solved: SolvedDesign, tree: SolvedTree) => ({
  topology: solved.topology,
  frame: frameOf(solved, tree, arrangeAsCabled(solved.topology.design, { width: 600, height: 400 })),
  stands: solvedStands(solved, tree),
});

function sceneAt(base: ReturnType<typeof baseOf>, run: Trace, tree: string, at: number) {
  const stands = standsAt(base.topology, base.stands, run, tree, at);
  return { scene: buildScene(base.frame, stands), waiting: stands.waiting };
}

describe('the chart at a moment', () => {
  const solved = solveDesign(design);
  const of = solved.byId.get('vlan-110')!;
  const base = baseOf(solved, of);
  const role = (at: number, port: string) => sceneAt(base, trace, OWN, at).scene.pegs.find((p) => p.id === port)!.role;
  const wire = (at: number) =>
    sceneAt(base, trace, OWN, at).scene.wires.find((w) => w.portB === 'ticket-hall:1' || w.portA === 'ticket-hall:1')!;
  test('shows roles and cuts of that moment, not of the design', () => {
    expect([role(4e6, 'ticket-hall:2'), role(6e6, 'ticket-hall:2')]).toEqual(['alternate', 'root']);
    expect([wire(4e6).state, wire(6e6).state]).toEqual(['open', 'down']);
  });
  test('a switch that is off stands as off, and the root of the moment as root', () => {
    const plates = (at: number, tree: string) => {
      const tried = solved.byId.get(tree)!;
      return Object.fromEntries(
        sceneAt(baseOf(solved, tried), trace, tree, at).scene.plates.map((p) => [p.id, p.standing]),
      );
    };
    expect(plates(10e6, 'vlan-140')['core-west']).toBe('root');
    expect(plates(29e6, 'vlan-140')).toMatchObject({ 'core-west': 'off', 'core-east': 'root' });
  });
  test('what the run does not know is as the solver has it: a switch without a port in the tree is not off', () => {
    const only = {
      ...design,
      links: design.links.filter((l) => ![l.a, l.b].some((e) => 'port' in e && e.port.startsWith('gate:'))),
    };
    const own = solveDesign({
      ...only,
      ports: only.ports.map((p) => (p.switch === 'gate' ? { ...p, vlans: '199' } : p)),
    });
    const { plates } = sceneAt(baseOf(own, own.byId.get(OWN)!), trace, OWN, 4e6).scene;
    expect(plates.find((p) => p.id === 'gate')).toMatchObject({ standing: 'outside', tag: 'not in tree' });
  });
  test('both switches of a pair are what the first is', () => {
    const pair = asPair();
    const own = solveDesign(pair);
    const run = rehearse(pair, { id: 's', name: 's', until: 5, probes: [], events: [] });
    const base = baseOf(own, own.byId.get(OWN)!);
    const standing = Object.fromEntries(sceneAt(base, run, OWN, 4e6).scene.plates.map((p) => [p.id, p.standing]));
    expect([standing['core-east'], standing['core-west']]).toEqual(['root', 'root']);
  });
  test('frames that loop are marked on the cables of their ring, in the trees in which they do, while they do', () => {
    const ring = rehearse(design, {
      id: 's',
      name: 's',
      until: 12,
      probes: [],
      events: [
        { id: 'a', at: 5, kind: 'tree-off', switch: 'quay-b' },
        { id: 'b', at: 9, kind: 'switch-off', switch: 'quay-b' },
      ],
    });
    const during = ring.loops.find((l) => ring.classes[l.vlan]!.includes(110))!;
    const marked = (at: number) =>
      sceneAt(base, ring, laneTree(ring, 'vlan-110'), at)
        .scene.wires.filter((w) => w.round)
        .flatMap((w) => [w.portA!, w.portB!])
        .sort();
    expect(during.from).toBe(5e6);
    expect(marked(5e6)).toEqual([...during.ports].sort());
    expect([marked(4.9e6), marked(11e6)]).toEqual([[], []]);
  });
  test('the way of a pair belongs to the tree of its VLAN', () => {
    expect([inTree(trace, OWN, 110), inTree(trace, OWN, 140)]).toEqual([true, false]);
    expect(inTree(trace, 'cist', 140)).toBe(true);
    expect(laneTree(trace, 'vlan-110')).toBe('vlan-110');
  });
  test('what did not change since the moment before is the same object, and nothing at all where nothing did', () => {
    const keep = keepingScenes();
    const at = (time: number) => keep(base, sceneAt(base, trace, OWN, time));
    const [first, same, later] = [at(4e6), at(4.5e6), at(6e6)];
    expect(same).toBe(first);
    const peg = (m: typeof first, id: string) => m.scene.pegs.find((p) => p.id === id);
    expect(peg(later, 'gate:1')).toBe(peg(first, 'gate:1'));
    expect(peg(later, 'ticket-hall:2')).not.toBe(peg(first, 'ticket-hall:2'));
    expect(later.scene.wires).not.toBe(first.scene.wires);
  });
});

describe('a lane', () => {
  const lane = (...times: number[]) => ({
    tree: OWN,
    port: 'p',
    spans: times.map((at, i) => ({
      at,
      role: 'designated' as const,
      state: i % 2 ? ('discarding' as const) : ('forwarding' as const),
    })),
  });
  // A microsecond a pixel.
  const clip = (from: number, to: number): [number, number] => [from, to];
  test('shows every stretch that can be distinguished', () => {
    expect(stretches(lane(0, 40, 60), 100, clip).map((s) => [s.span?.at, s.from, s.to])).toEqual([
      [0, 0, 40],
      [40, 40, 60],
      [60, 60, 100],
    ]);
  });
  test('joins what changes faster than a pixel, and covers the whole time all the same', () => {
    const fast = Array.from({ length: 5000 }, (_, i) => 20 + i * 0.01);
    const found = stretches(lane(0, ...fast), 100, clip);
    expect(found.length).toBeLessThan(10);
    expect(found.some((s) => s.span === null)).toBe(true);
    expect([found[0]!.from, found.at(-1)!.to]).toEqual([0, 100]);
    found.slice(1).forEach((s, i) => expect(s.from).toBeCloseTo(found[i]!.to));
  });
});

describe('the window of time', () => {
  test('is zoomed about a moment and stays within the run', () => {
    expect(zoomed({ from: 0, to: 100 }, 0, 0.1, 1e6)).toEqual({ from: 0, to: 200 });
    const near = zoomed({ from: 0, to: 1e6 }, 4e5, 0.5, 1e6);
    expect(near).toEqual({ from: 2e5, to: 7e5 });
    expect(zoomed(near, 7e5, 100, 1e6)).toEqual({ from: 0, to: 1e6 });
  });
  test('has about ten marks, in steps of 1, 2 or 5', () => {
    for (const span of [900, 30e6, 90e6, 600e6]) {
      const step = tickStep(span);
      expect(span / step).toBeGreaterThan(4);
      expect(span / step).toBeLessThan(10.1);
      expect([1, 2, 5]).toContain(step / 10 ** Math.floor(Math.log10(step)));
    }
  });
});

test('a bundle that a script makes has a name, and is drawn from then on', () => {
  const loose = { ...design, bundles: design.bundles.filter((b) => !['quay-b', 'cold-store'].includes(b.switch)) };
  const value = {
    id: 'new',
    switch: 'quay-b',
    name: 'to-store',
    number: 101,
    members: ['quay-b:8', 'quay-b:9'],
    kind: 'static',
  };
  const events = [
    { id: 'e', at: 5, kind: 'set' as const, label: 'bundled', edits: [{ type: 'add', kind: 'bundle', value }] },
  ];
  const script = { id: 's', name: 's', until: 10, events: events as never };
  const over = designsOver(loose, script);
  expect(over.map((d) => [d.from, d.design.bundles.some((b) => b.id === 'new')])).toEqual([
    [0, false],
    [5_000_000, true],
  ]);
  expect(portWords(everNamed(loose, script), 'new')).toBe('quay-b to-store');
  const later = over[1]!.design;
  const solved = solveDesign(later);
  const own = rehearse(loose, { ...script, probes: [] });
  const base = baseOf(solved, solved.byId.get(OWN)!);
  // Two cables, at the one port that the static end makes of them.
  const drawn = sceneAt(base, own, OWN, 9_000_000).scene.wires.filter((w) => w.portA === 'new' || w.portB === 'new');
  expect(drawn).toHaveLength(2);
  for (const wire of drawn) expect(wire.state).not.toBe('down');
});
