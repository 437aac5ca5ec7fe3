import fc from 'fast-check';
import { asCabled } from '../../demo/brackwater';
import { campus } from '../../demo/campus';
import { networks } from '../../../tests/support/networks';
import { presence } from '../../core/editing';
import { applyEdits, emptyDesign, setField } from '../../core/design';
import type { Design } from '../../core/design';
import { arrangeAsCabled } from '../chart/arrange';
import { layOut, looksOf, placesOf } from '../chart/cabling-scene';
import {
  addHostAction,
  addSwitchAction,
  alignedPlaces,
  cableAction,
  cableToNewAction,
  moveAction,
  oneMoreAction,
  paintAction,
  paintsOn,
  pasteAction,
  chosenPart,
  removeAction,
  renameAction,
  tierPlaces,
} from './actions';
import { layoutGraph, placesIn } from './arrange-job';
import { placesWith } from './gestures';
import { snapped } from './snap';

const demo = asCabled();
let n = 0;
const newId = (prefix: string) => `${prefix}-t${++n}`;
const AREA = { width: 1200, height: 420 };
const places = (design: Design) => placesOf(design, arrangeAsCabled(design, AREA).at);
const scene = (design: Design, vlan: number | null = null) =>
  layOut(looksOf(design, vlan === null ? null : { vlan, presence: presence(design, vlan) }), places(design));
const placeIn =
  (design: Design) =>
  ({ kind, id }: { kind: string; id: string }) => {
    const all = places(design);
    return (kind === 'switch' ? all.switches : kind === 'host' ? all.hosts : all.segments).get(id) ?? null;
  };
const after = (design: Design, edits: Parameters<typeof applyEdits>[1]) => {
  const applied = applyEdits(design, edits);
  if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
  return applied.design;
};

describe('the scene of the cabling', () => {
  test('every cable is a wire of its own, members of a bundle too, and every cabled port has its peg', () => {
    const { wires, pegs, plates, spots } = scene(demo);
    expect([wires.length, plates.length, spots.length]).toEqual([demo.links.length, 10, 6]);
    const cabled = demo.links.flatMap((l) => [l.a, l.b]).filter((e) => 'port' in e);
    expect(pegs).toHaveLength(cabled.length);
    expect(new Set(wires.map((w) => w.key)).size).toBe(wires.length);
  });
  test('ends that differ are marked on their cable, and the rate on every cable', () => {
    const { wires } = scene(demo);
    expect(wires.filter((w) => w.alarm).map((w) => [w.id, w.label])).toEqual([['quay-b:4--gate:2', '1G ≠']]);
    expect(wires.find((w) => w.id === 'core-east:1--core-west:1')).toMatchObject({ label: '10G', weight: 3 });
  });
  test('with a VLAN over it, what does not carry it stands back and what carries it at one end is in alarm', () => {
    const { wires, plates } = scene(demo, 140);
    expect(plates.filter((p) => p.standing === 'outside').map((p) => p.id)).toEqual(['workshop']);
    expect(wires.find((w) => w.id === 'signal-tower:3--workshop:1')!.state).toBe('outside');
    expect(
      scene(demo, 130)
        .wires.filter((w) => w.state === 'half')
        .map((w) => w.id),
    ).toEqual(['quay-b:4--gate:2']);
  });
  test('a part that is unreachable is marked, and so are its hosts', () => {
    const cut = after(demo, [setField('link', 'quay-b:8--cold-store:1', 'down', true)]);
    const { plates, spots } = scene(cut, 160);
    expect(plates.find((p) => p.id === 'cold-store')).toMatchObject({ standing: 'apart', tag: 'part 2' });
    expect(spots.filter((s) => s.alarm).map((s) => s.id)).toEqual(['freezer-monitor']);
  });
  test('whatever the network, everything has a place', () => {
    fc.assert(
      fc.property(networks, (design) => {
        const { plates, wires, pegs, spots } = scene(design);
        for (const p of [...plates, ...pegs, ...spots, ...wires.flatMap((w) => [w.a, w.b])])
          expect(Number.isFinite(p.x) && Number.isFinite(p.y)).toBe(true);
      }),
      { numRuns: 50 },
    );
  });
  test('hosts without a place go along when their switch is dragged', () => {
    const loose = { ...demo, hosts: demo.hosts.map(({ id, name }) => ({ id, name })) };
    const before = places(loose);
    const moved = placesWith(looksOf(loose, null), before, new Map([['switch gate', { x: 300, y: 800 }]]));
    expect(moved.switches.get('gate')).toEqual({ x: 300, y: 800 });
    expect(moved.hosts.get('gate-camera')!.y - before.hosts.get('gate-camera')!.y).toBe(800 - 420);
    expect(moved.hosts.get('recorder')).toEqual(before.hosts.get('recorder'));
  });
});

describe('where a dragged thing comes to stand', () => {
  const others = [
    { x: 100, y: 50 },
    { x: 300, y: 220 },
  ];
  test('in line with another within reach, with a line that shows it', () =>
    expect(snapped({ x: 104, y: 131 }, others)).toEqual({ point: { x: 100, y: 130 }, guides: 'M100 50V130' }));
  test('else on the grid', () =>
    expect(snapped({ x: 156, y: 131 }, others)).toEqual({ point: { x: 160, y: 130 }, guides: '' }));
});

describe('actions', () => {
  test('a new switch has the next name of its tier and stands on the grid', () => {
    const { edits, made } = addSwitchAction(demo, { x: 333, y: 217 }, 'access', newId);
    expect(after(demo, edits).switches.at(-1)).toMatchObject({ name: 'access-1', x: 330, y: 220, tier: 'access' });
    expect(made[0]!.kind).toBe('switch');
  });
  test('a host takes the VLAN in view', () =>
    expect(after(demo, addHostAction(demo, { x: 0, y: 0 }, 150, newId).edits).hosts.at(-1)).toMatchObject({
      name: 'host-1',
      vlan: 150,
    }));
  test('cables are laid from one to each of the others, as many as asked', () => {
    const to = ['gate', 'crane-yard'].map((id) => ({ kind: 'switch' as const, id }));
    const action = cableAction(demo, { kind: 'switch', id: 'workshop' }, to, 1000, newId, 2);
    expect(after(demo, action.edits).links).toHaveLength(demo.links.length + 4);
    expect(action.label).toBe('Cable workshop to 2 others');
  });
  test('a cable to empty paper makes the switch that it ends at', () => {
    const design = after(
      demo,
      cableToNewAction(demo, { kind: 'switch', id: 'gate' }, { x: 0, y: 700 }, 'access', 1000, newId).edits,
    );
    expect([design.switches.length, design.links.length]).toEqual([11, demo.links.length + 1]);
  });
  test('rows by tier put the core above the distribution above the access switches, none on another', () => {
    for (const design of [demo, campus({ switches: 50, vlans: 10, outcomes: 4 })]) {
      const at = tierPlaces(design, placeIn(design));
      const placed = after(design, moveAction(design, at, placeIn(design), 'x').edits);
      const row = (tier: string) => new Set(placed.switches.filter((s) => s.tier === tier).map((s) => s.y));
      expect([...row('core')][0]!).toBeLessThan([...row('distribution')][0]!);
      expect([...row('distribution')][0]!).toBeLessThan([...row('access')][0]!);
      expect(new Set(placed.switches.map((s) => `${s.x} ${s.y}`)).size).toBe(placed.switches.length);
    }
  });
  test('moving one switch of a design without places keeps the others where they are drawn', () => {
    const loose: Design = { ...demo, switches: demo.switches.map(({ x: _x, y: _y, ...s }) => s) };
    const drawn = places(loose);
    const edits = moveAction(loose, new Map([['switch gate', { x: 5, y: 900 }]]), placeIn(loose), 'x').edits;
    const now = places(after(loose, edits));
    expect(now.switches.get('gate')).toEqual({ x: 5, y: 900 });
    for (const s of loose.switches.filter((x) => x.id !== 'gate')) {
      const [a, b] = [now.switches.get(s.id)!, drawn.switches.get(s.id)!];
      expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeLessThan(1);
    }
  });
  test('things are brought into a row, a column, or spread evenly', () => {
    const things = [0, 40, 200].map((x, i) => ({ key: `k${i}`, at: { x, y: i * 11 } }));
    expect([...alignedPlaces(things, 'row').values()].map((p) => p.y)).toEqual([10, 10, 10]);
    expect(new Set([...alignedPlaces(things, 'column').values()].map((p) => p.x)).size).toBe(1);
    expect([...alignedPlaces(things, 'spread').values()].map((p) => p.x)).toEqual([0, 100, 200]);
  });
  test('painting puts a VLAN on until all ends have it, then takes it off', () => {
    const wire = ['quay-b:4--gate:2'];
    expect(paintsOn(demo, wire, 130)).toBe(true);
    const on = after(demo, paintAction(demo, wire, 130, true).edits);
    expect(paintsOn(on, wire, 130)).toBe(false);
    expect(paintAction(on, wire, 130, false).label).toMatch(/^Take VLAN 130 off the link at quay-b 4/);
  });
  test('delete, rename, duplicate and one more have words for undo', () => {
    const gate = [{ kind: 'switch' as const, id: 'gate' }];
    expect(removeAction(demo, gate).label).toBe('Delete gate');
    expect(renameAction(demo, gate[0]!, 'yard').label).toBe('Rename gate to yard');
    expect(renameAction(demo, gate[0]!, 'gate').edits).toEqual([]);
    expect(pasteAction(demo, chosenPart(demo, gate), newId).label).toBe('Paste gate');
    expect(oneMoreAction(demo, gate, newId)!.label).toBe('Copy of gate');
    expect(oneMoreAction(demo, [], newId)).toBeNull();
  });
});

describe('automatic arrangement', () => {
  test('parallel cables count once, tiers are layers, hosts lie below', () => {
    const graph = layoutGraph(demo, 'layers');
    expect(graph.children).toHaveLength(16);
    expect(graph.edges!.length).toBe(demo.links.length - 1);
    const layer = (id: string) =>
      graph.children!.find((c) => c.id === id)!.layoutOptions!['elk.partitioning.partition'];
    expect([layer('switch core-east'), layer('switch gate'), layer('host recorder')]).toEqual(['0', '2', '3']);
  });
  test('places are the middles of the boxes', () =>
    expect([...placesIn({ id: 'x', children: [{ id: 'switch a', x: 10, y: 20, width: 100, height: 50 }] })]).toEqual([
      ['switch a', { x: 60, y: 45 }],
    ]));
  test('an empty design has nothing to arrange', () =>
    expect(layoutGraph(emptyDesign('x'), 'stress').children).toEqual([]));
});
