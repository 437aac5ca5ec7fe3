import fc from 'fast-check';
import { after } from '../../../tests/support/edits';
import { asCabled, asMeant } from '../../demo/brackwater';
import {
  addElement,
  emptyDesign,
  integrityFaults,
  linkAt,
  linksOfHost,
  linkTypeOf,
  portsOf,
  removeAll,
} from '../design';
import type { Design, Edit } from '../design';
import { Macs, Names } from './names';
import { PATTERNS, drawPattern } from './patterns';
import { Wiring } from './wiring';
import { applyWhatFits } from './fit';
import { presence } from './vlans';
import { oneMore } from './one-more';
import { partOf, partText, readPart } from './part';
import { pastePart } from './paste-part';

const demo = asCabled();
const ids = () => {
  let n = 0;
  return (prefix: string) => `${prefix}-new${++n}`;
};
const named = (design: Design, name: string) => design.switches.find((s) => s.name === name)!;

describe('laying cables', () => {
  const sketch = after(emptyDesign('sketch'), [
    addElement('switch', { id: 'a', name: 'a', mac: '00:00:5e:00:53:01' }),
    addElement('switch', { id: 'b', name: 'b', mac: '00:00:5e:00:53:02' }),
    addElement('host', { id: 'h', name: 'h', vlan: 1 }),
    addElement('segment', { id: 'g', name: 'hub', ports: [] }),
  ]);

  test('a cable between two switches brings a port at each end into being', () => {
    const wiring = new Wiring(sketch, ids());
    wiring.cable({ kind: 'switch', id: 'a' }, { kind: 'switch', id: 'b' }, 1000);
    wiring.cable({ kind: 'switch', id: 'a' }, { kind: 'switch', id: 'b' }, 1000);
    const design = after(sketch, wiring.edits);
    expect(design.ports.map((p) => [p.switch, p.name, p.number])).toEqual([
      ['a', '1', 1],
      ['b', '1', 1],
      ['a', '2', 2],
      ['b', '2', 2],
    ]);
    expect(design.links).toHaveLength(2);
  });
  test('a cable from a switch to itself takes two ports of it', () => {
    const wiring = new Wiring(sketch, ids());
    wiring.cable({ kind: 'switch', id: 'a' }, { kind: 'switch', id: 'a' }, 1000);
    expect(portsOf(after(sketch, wiring.edits), 'a')).toHaveLength(2);
  });
  test('every further cable of a host is a card of its own, on an edge port in its VLAN', () => {
    const wiring = new Wiring(sketch, ids());
    for (const id of ['a', 'b']) wiring.cable({ kind: 'host', id: 'h' }, { kind: 'switch', id }, 1000);
    const design = after(sketch, wiring.edits);
    expect(linksOfHost(design, 'h').map((l) => l.b)).toEqual([{ host: 'h' }, { host: 'h', card: 'card 2' }]);
    expect(design.ports.every((p) => p.edge && p.native === 1 && p.vlans === '1')).toBe(true);
  });
  test('ports on a segment are shared, a full-duplex port is point-to-point, and what is set stands above both', () => {
    const wiring = new Wiring(sketch, ids());
    wiring.cable({ kind: 'segment', id: 'g' }, { kind: 'switch', id: 'a' }, 1000);
    wiring.cable({ kind: 'switch', id: 'a' }, { kind: 'switch', id: 'b' }, 1000);
    const [hub, wire] = after(sketch, wiring.edits).ports;
    const design = after(sketch, wiring.edits);
    expect(linkTypeOf(design, hub!)).toBe('shared');
    expect(linkTypeOf(design, wire!)).toBe('point-to-point');
    expect(linkTypeOf(design, { ...wire!, duplex: 'half' })).toBe('shared');
    expect(linkTypeOf(design, { ...hub!, linkType: 'point-to-point' })).toBe('point-to-point');
  });
  test('two hosts have no port to meet at', () => {
    const wiring = new Wiring(sketch, ids());
    expect(wiring.cable({ kind: 'host', id: 'h' }, { kind: 'host', id: 'h' }, 1000)).toBeNull();
    expect(wiring.edits).toEqual([]);
  });
  test('a cable that was pulled out leaves ports that the next cable takes', () => {
    const gone = after(demo, removeAll(demo, [{ kind: 'link', id: 'quay-a:3--ticket-hall:1' }]));
    const wiring = new Wiring(gone, ids());
    wiring.cable({ kind: 'switch', id: 'quay-a' }, { kind: 'switch', id: 'ticket-hall' }, 1000);
    const design = after(gone, wiring.edits);
    expect(design.ports).toHaveLength(demo.ports.length);
    expect(linkAt(design, 'quay-a:3')).toBe(linkAt(design, 'ticket-hall:1'));
  });
  test('new trunk ports carry what the other trunks of the two switches carry, and follow their names', () => {
    const renamed = { ...demo, ports: demo.ports.map((p) => ({ ...p, name: `te-${p.number}` })) };
    const wiring = new Wiring(renamed, ids());
    wiring.cable({ kind: 'switch', id: 'quay-a' }, { kind: 'switch', id: 'core-east' }, 10_000);
    const design = after(renamed, wiring.edits);
    const [p, q] = design.ports.slice(-2);
    expect([p!.name, p!.vlans, q!.vlans]).toEqual(['te-7', '110,120,130,140,150,160,199', p!.vlans]);
  });
});

describe('names and addresses', () => {
  test('a row goes on where it is free', () => {
    const names = new Names(['gate', 'closet-09', 'closet-10']);
    expect([names.claim('gate'), names.claim('gate'), names.claim('closet-09'), names.claim('yard')]).toEqual([
      'gate-2',
      'gate-3',
      'closet-11',
      'yard',
    ]);
  });
  test('stand-in addresses are from the documentation range, then locally administered, and never twice', () => {
    const macs = new Macs(demo);
    const all = Array.from({ length: 300 }, () => macs.next());
    expect(new Set([...all, ...demo.switches.map((s) => s.mac)]).size).toBe(310);
    expect(all[0]).toBe('00:00:5e:00:53:01');
    expect(all.at(-1)).toMatch(/^02:/);
  });
});

describe('what fits is kept', () => {
  test('of many changes the wrong ones are named and the rest is one step', () => {
    const set = (from: string, id: string, field: string, value: unknown) => ({
      from,
      edits: [{ type: 'set', kind: 'switch', id, field, value } as Edit],
    });
    const fitted = applyWhatFits(demo, [
      set('good', 'gate', 'priority', 4096),
      set('step', 'quay-a', 'priority', 2478),
      set('taken', 'quay-b', 'name', 'gate'),
      set('long', 'core-west', 'name', 'x'.repeat(300)),
      set('gone', 'nowhere', 'name', 'x'),
    ]);
    expect(fitted.kept).toEqual(['good']);
    expect(named(fitted.design, 'gate').priority).toBe(4096);
    expect(Object.fromEntries(fitted.refused.map((r) => [r.from, r.sentence]))).toMatchObject({
      step: expect.stringContaining('the nearest is 4096'),
      taken: expect.stringContaining("Two switches are called 'gate'"),
      long: expect.stringContaining('300 characters'),
      gone: expect.stringContaining('not in the design'),
    });
  });
  test('whatever is asked, what is left is right, and kept and refused add up', () => {
    const values = fc.oneof(
      fc.constantFrom(...demo.switches.map((s) => s.name)),
      fc.string({ maxLength: 6 }),
      fc.integer(),
    );
    const change = fc.record({
      id: fc.constantFrom(...demo.switches.map((s) => s.id), 'missing'),
      field: fc.constantFrom('name', 'mac', 'priority', 'tier', 'vlanPriority.10'),
      value: values,
    });
    fc.assert(
      fc.property(fc.array(change, { maxLength: 12 }), (wanted) => {
        const changes = wanted.map((w, i): { from: number; edits: Edit[] } => ({
          from: i,
          edits: [{ type: 'set', kind: 'switch', ...w }],
        }));
        const fitted = applyWhatFits(demo, changes);
        expect(integrityFaults(fitted.design)).toEqual([]);
        expect([...fitted.kept, ...fitted.refused.map((r) => r.from)].sort((a, b) => a - b)).toEqual(
          changes.map((c) => c.from),
        );
        expect(after(demo, fitted.edits)).toEqual(fitted.design);
      }),
    );
  });
});

describe('parts', () => {
  const closet = [
    { kind: 'switch', id: 'gate' },
    { kind: 'host', id: 'gate-camera' },
  ] as const;
  test('a part goes through the clipboard and comes in beside what is there, under names that are free', () => {
    const part = readPart(partText(partOf(demo, closet)))!;
    const { edits, made } = pastePart(demo, part, ids(), { dx: 30, dy: 30 });
    const design = after(demo, edits);
    expect(design.switches.at(-1)).toMatchObject({ name: 'gate-2', x: 300, y: 450 });
    expect(design.hosts.at(-1)!.name).toBe('gate-camera-2');
    expect(made).toHaveLength(2);
    expect(linksOfHost(design, made[1]!.id)).toHaveLength(1);
  });
  test('into an empty design it brings its VLANs and keeps its addresses', () => {
    const design = after(
      emptyDesign('x'),
      pastePart(emptyDesign('x'), partOf(demo, closet), ids(), { dx: 0, dy: 0 }).edits,
    );
    expect(design.switches[0]!.mac).toBe(named(demo, 'gate').mac);
    expect(design.vlans.map((v) => v.number)).toContain(130);
  });
  test.each(['', 'x', '{"format":"knot-path-part"}', '[1]'])('%s is no part', (text) =>
    expect(readPart(text)).toBeNull(),
  );
  test('one more closet has the same uplinks with the same settings, and its host', () => {
    const { edits, made } = oneMore(demo, ['gate'], ids());
    const design = after(demo, edits);
    const copy = design.switches.at(-1)!;
    const far = portsOf(design, copy.id).flatMap((p) => {
      const link = linkAt(design, p.id)!;
      return [link.a, link.b].flatMap((e) =>
        'port' in e && e.port !== p.id ? [design.ports.find((x) => x.id === e.port)!] : [],
      );
    });
    expect(far.map((p) => p.switch).sort()).toEqual(['quay-a', 'quay-b']);
    expect(far.every((p) => p.vlans === '110,120,130,140,150,160,199' && p.speed === 1000)).toBe(true);
    expect(made.map((m) => m.kind)).toEqual(['switch', 'host']);
    expect(named(demo, 'gate').x).not.toBe(copy.x);
  });
  test('one more closet behind a bundle gets a bundle at both ends', () => {
    const meant = asMeant();
    const design = after(meant, oneMore(meant, ['cold-store'], ids()).edits);
    const made = design.bundles.slice(meant.bundles.length);
    expect(made.map((b) => [b.switch.startsWith('s-new'), b.members.length])).toEqual([
      [true, 2],
      [false, 2],
    ]);
  });
  test('removing many things at once takes what two of them share once', () => {
    const things = [
      ...demo.switches.map((s) => ({ kind: 'switch' as const, id: s.id })),
      ...demo.hosts.map((h) => ({ kind: 'host' as const, id: h.id })),
    ];
    const empty = after(demo, removeAll(demo, things));
    expect([empty.switches, empty.ports, empty.links, empty.hosts, empty.bundles].flat()).toEqual([]);
  });
});

describe('patterns', () => {
  const request = {
    names: { core: 'core', distribution: 'dist', access: 'closet' },
    coreSpeed: 10_000,
    accessSpeed: 1000,
    vlans: '10-12',
    x: 100,
    y: 100,
  };
  const edges = { triangle: 3, square: 4, ring: 6, pyramid: 6, 'collapsed-core': 13, 'three-tier': 22, mesh: 10 };
  test.each(PATTERNS.map((p) => [p.id, p.count?.start ?? 3] as const))(
    '%s is laid out with its cables',
    (pattern, count) => {
      const { edits, made } = drawPattern(demo, { ...request, pattern, count }, ids());
      const design = after(demo, edits);
      expect(made.length).toBe(design.switches.length - demo.switches.length);
      expect(design.links.length - demo.links.length).toBe(edges[pattern]);
      const places = design.switches.slice(demo.switches.length).map((s) => `${s.x} ${s.y}`);
      expect(new Set(places).size).toBe(places.length);
      expect(presence(design, 11).parts).toEqual([
        made.map((m) => m.id).sort().length ? expect.arrayContaining(made.map((m) => m.id)) : [],
      ]);
    },
  );
  test('every count that may be asked for gives a right design', () => {
    for (const { id, count } of PATTERNS)
      for (const n of count ? [count.min, count.max] : [3]) {
        const { edits } = drawPattern(emptyDesign('x'), { ...request, pattern: id, count: n }, ids());
        expect(integrityFaults(after(emptyDesign('x'), edits))).toEqual([]);
      }
  });
});
