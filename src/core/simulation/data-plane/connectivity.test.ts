import { emptyDesign, setField } from '../../design';
import type { Design, ScriptEvent } from '../../design';
import { floodsOf, gapsOf, storyOf } from '../../trace';
import { rehearse } from '../run';

/** Two hosts at the ends of a square of switches: over b, or over the longer way c, d. */
function square(mode: Design['mode']): Design {
  const design = emptyDesign('square');
  design.mode = mode;
  design.vlans = [
    { id: 'v1', number: 1 },
    { id: 'v2', number: 2 },
  ];
  'abcd'
    .split('')
    .forEach((name, i) =>
      design.switches.push({ id: name, name, mac: `00:00:5e:00:53:0${i}`, priority: 4096 * (i + 1) }),
    );
  const port = (s: string, more: object = {}) => {
    const number = design.ports.filter((p) => p.switch === s).length + 1;
    design.ports.push({ id: `${s}:${number}`, switch: s, name: `${number}`, number, speed: 1000, ...more });
    return { port: `${s}:${number}` };
  };
  for (const [a, b] of ['ab', 'ac', 'cd', 'bd'].map((p) => p.split('') as [string, string]))
    design.links.push({ id: `${a}${b}`, a: port(a), b: port(b) });
  for (const [host, at] of [
    ['x', 'a'],
    ['y', 'b'],
  ] as const) {
    design.hosts.push({ id: host, name: host, vlan: 1 });
    design.links.push({ id: `host-${host}`, a: port(at, { edge: true }), b: { host } });
  }
  return design;
}
const traced = (design: Design, until: number, ...events: object[]) =>
  rehearse(design, {
    id: 's',
    name: 's',
    until,
    events: events.map((e, i) => ({ id: `e${i}`, ...e })) as ScriptEvent[],
    probes: [{ from: 'x', to: 'y', vlan: 1 }],
  });
const contact = (...of: Parameters<typeof traced>) => traced(...of).contacts[0]!;

describe('contact of a pair', () => {
  test('goes the way of the tree, port by port', () => {
    expect(contact(square('rstp'), 5).spans).toEqual([
      { at: 0, ok: true, path: ['a:3', 'a:1', 'b:1', 'b:3'], copies: 1 },
    ]);
  });
  test('goes over the other way after a cable is lost: at once with the rapid protocol', () => {
    const lane = contact(square('rstp'), 20, { kind: 'link-down', at: 5, link: 'ab' });
    expect(lane.spans.at(-1)!.path).toEqual(['a:3', 'a:2', 'c:1', 'c:2', 'd:1', 'd:2', 'b:2', 'b:3']);
    for (const gap of gapsOf(lane)) expect(gap.to! - gap.from).toBeLessThan(50_000);
  });
  test('with the classic one after two forward delays, and before them max age less what the message was old', () => {
    const lane = contact(square('stp'), 80, { kind: 'link-down', at: 5, link: 'ab' });
    const [gap] = gapsOf(lane);
    expect(gap!.from).toBe(5_000_000);
    // b, which lost the root, is believed to be its way by d until that is too old.
    const seconds = (gap!.to! - gap!.from) / 1e6;
    expect(seconds).toBeGreaterThan(20 - 1 - 2 + 30 - 0.1);
    expect(seconds).toBeLessThan(20 - 1 + 30 + 0.1);
  });
  test('ends where a host is unplugged, and comes back with its cable, past the port that learns', () => {
    const lane = contact(
      square('rstp'),
      30,
      { kind: 'link-down', at: 5, link: 'host-y' },
      { kind: 'link-up', at: 10, link: 'host-y' },
    );
    expect(gapsOf(lane)).toHaveLength(1);
    const [gap] = gapsOf(lane);
    expect(gap!.from).toBe(5_000_000);
    expect(gap!.to!).toBeGreaterThanOrEqual(10_000_000);
    expect(gap!.to!).toBeLessThan(10_100_000);
  });
  test('a VLAN that is taken off the only open cable loses contact although the tree is whole', () => {
    const design = square('rstp');
    design.ports = design.ports.map((p) => (p.id === 'a:1' ? { ...p, vlans: '2' } : p));
    expect(contact(design, 5).spans).toEqual([{ at: 0, ok: false, path: [], copies: 0 }]);
  });
  test('frames loop and arrive in copies while spanning tree is off everywhere', () => {
    const off = 'abcd'.split('').map((s) => ({ kind: 'tree-off', at: 5, switch: s }));
    const design = square('rstp');
    const trace = traced(design, 10, ...off);
    expect(trace.contacts[0]!.spans.at(-1)!.copies).toBeGreaterThan(1);
    expect(
      storyOf(design, trace)
        .map((l) => l.text)
        .join('\n'),
    ).toMatch(/Frames arrive in \d+ or more copies: x to y in VLAN 1/);
  });
});

test('a topology change that a guard holds back leaves addresses where they were, until they are forgotten', () => {
  const base = square('rstp');
  const far = { ...base, ports: base.ports.map((p) => (['a:1', 'b:1'].includes(p.id) ? { ...p, cost: 900_000 } : p)) };
  const guarded = {
    ...far,
    ports: far.ports.map((p) => (['a:1', 'b:1'].includes(p.id) ? { ...p, tcGuard: true } : p)),
    switches: far.switches.map((s) => ({ ...s, ageingTime: 20 })),
  };
  const lost = { kind: 'link-down', at: 5, link: 'cd' };
  const gaps = (design: Design) => gapsOf(contact(design, 40, lost)).map((g) => g.to! - g.from);
  expect(gaps(far).every((gap) => gap < 1e6)).toBe(true);
  expect(gaps(guarded).map((gap) => Math.round(gap / 1e6))).toEqual([20]);
});

test('a topology change of one instance has the VLANs of that instance forgotten, and no others', () => {
  const design = square('mstp');
  design.regions = [{ id: 'r', name: 'square', revision: 1, map: { '1': '1' } }];
  for (const s of design.switches) s.region = 'r';
  const flushed = (vlan: number) => {
    // The tree of instance 1 leaves the cable between a and b; that of VLAN 2 goes on over it.
    const edits = [setField('port', 'b:1', 'instanceCost.1', 2_000_000)];
    design.hosts = design.hosts.map((h) => ({ ...h, vlan }));
    const trace = rehearse(design, {
      id: 's',
      name: 's',
      until: 10,
      events: [{ id: 'e', at: 5, kind: 'set', label: 'cost', edits: edits as never }],
      probes: [{ from: 'x', to: 'y', vlan }],
    });
    return trace.happenings.filter((h) => h.kind === 'flush').length;
  };
  expect(flushed(1)).toBeGreaterThan(0);
  expect(flushed(2)).toBe(0);
});

describe('a host that seldom speaks', () => {
  /** Tables of a and b age after 30 and 20 s; y speaks every so often. */
  const aged = (answersEvery: number | 'never', until: number, ...events: object[]) => {
    const design = square('rstp');
    design.switches = design.switches.map((s) =>
      s.id === 'a' ? { ...s, ageingTime: 30 } : s.id === 'b' ? { ...s, ageingTime: 20 } : s,
    );
    const trace = rehearse(design, {
      id: 's',
      name: 's',
      until,
      events: events.map((e, i) => ({ id: `e${i}`, ...e })) as ScriptEvent[],
      probes: [{ from: 'x', to: 'y', vlan: 1, answersEvery }],
    });
    return { design, trace, floods: floodsOf(trace.contacts[0]!) };
  };
  test('is flooded where its address has aged, switch by switch, until it speaks again', () => {
    const { trace, floods, design } = aged(50, 60);
    expect(trace.contacts[0]!.spans.map(({ at, flood }) => [at, flood?.switches, flood?.ports])).toEqual([
      [0, undefined, undefined],
      [20_000_001, ['b'], 1],
      [30_000_001, ['a', 'b'], 2],
      [50_000_000, undefined, undefined],
    ]);
    expect(floods).toEqual([{ switches: ['a', 'b'], ports: 2, from: 20_000_001, to: 50_000_000 }]);
    const told = storyOf(design, trace).map((l) => l.text);
    expect(told).toContain(
      'Frames are flooded where the address is not known (a, b), in vain by 2 ports: x to y in VLAN 1.',
    );
    expect(told).toContain('Frames are no longer flooded, after 30.0 s: x to y in VLAN 1.');
  });
  test('is never flooded where it speaks before its address has aged', () => {
    expect(aged(15, 60).floods).toEqual([]);
  });
  test('is flooded all the time where it never speaks', () => {
    expect(aged('never', 10).floods).toEqual([expect.objectContaining({ from: 0, to: null })]);
  });
  test('is flooded after tables were flushed, until it speaks', () => {
    // On the way round by c and d nothing else is open: it is flooded while that way is sought, and no longer.
    const { floods } = aged(10, 30, { kind: 'link-down', at: 12, link: 'ab' });
    expect(floods).toEqual([expect.objectContaining({ from: 12_000_000, switches: ['a', 'c', 'd'] })]);
    expect(floods[0]!.to).toBeLessThan(12_100_000);
    // A cable comes back: tables are flushed, and the old way is open at c as well.
    const back = aged(10, 30, { kind: 'link-down', at: 1, link: 'cd' }, { kind: 'link-up', at: 12, link: 'cd' });
    expect(back.floods.at(-1)).toMatchObject({ to: 20_000_000 });
  });
});
