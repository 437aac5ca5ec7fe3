import { asMeant } from '../../demo/brackwater';
import { setField } from '../design';
import type { Design, Script, ScriptEvent } from '../design';
import { gapsOf, spanAt, storyOf } from '../trace';
import { rehearse } from './run';
import { timersForDiameter } from '../standard';
import type { Trace } from '../trace';

const PROBES = [
  { from: 'ferry-server', to: 'ticket-desk', vlan: 110 },
  { from: 'recorder', to: 'gate-camera', vlan: 130 },
];
type Loose = { kind: ScriptEvent['kind']; at: number } & Record<string, unknown>;
const script = (until: number, ...events: Loose[]): Script => ({
  id: 's',
  name: 's',
  until,
  events: events.map((e, i) => ({ id: `e${i}`, ...e })) as never,
  probes: PROBES,
});
const run = (design: Design, until: number, ...events: Loose[]): Trace => rehearse(design, script(until, ...events));
const UPLINK = 'quay-a:3--ticket-hall:1';
const spans = (trace: Trace, port: string, tree = 'vlan-110') =>
  trace.ports.find((l) => l.port === port && l.tree === tree)!.spans;
const gaps = (trace: Trace, pair = 0) => gapsOf(trace.contacts[pair]!).map((g) => (g.to! - g.from) / 1e6);
const text = (design: Design, trace: Trace) => storyOf(design, trace).map((l) => l.text);
/** With ports for end devices as they are without guards. */
const unguarded = (): Design => {
  const design = asMeant();
  return { ...design, ports: design.ports.map(({ bpduGuard: _, ...p }) => p) };
};

describe('a lost uplink', () => {
  test('rapid: the alternate port takes over without waiting for a timer', () => {
    const trace = run(asMeant(), 20, { kind: 'link-down', at: 5, link: UPLINK });
    expect(spans(trace, 'ticket-hall:2').map((s) => [s.at, s.role, s.state])).toEqual([
      [0, 'alternate', 'discarding'],
      [5_000_000, 'root', 'forwarding'],
    ]);
    expect(gaps(trace).every((g) => g < 0.1)).toBe(true);
  });
  test('classic: listening and learning, a forward delay each, thirty seconds unreachable', () => {
    const design: Design = { ...asMeant(), mode: 'per-vlan-stp' };
    const trace = run(design, 60, { kind: 'link-down', at: 5, link: UPLINK });
    const states = spans(trace, 'ticket-hall:2').filter((s) => s.at >= 5e6);
    expect(states.map((s) => [s.at / 1e6, s.state])).toEqual([
      [5, 'listening'],
      [20, 'learning'],
      [35, 'forwarding'],
    ]);
    expect(gaps(trace)).toEqual([30]);
    expect(text(design, trace)).toContain('Reachable again after 30.0 s: ferry-server to ticket-desk in VLAN 110.');
  });
  test('with the shortest timers it is eight', () => {
    const base = asMeant();
    const timers = { helloTime: 1, maxAge: 6, forwardDelay: 4 };
    const design: Design = { ...base, mode: 'per-vlan-stp', switches: base.switches.map((s) => ({ ...s, ...timers })) };
    expect(gaps(run(design, 30, { kind: 'link-down', at: 5, link: UPLINK }))).toEqual([8]);
  });
  test('a link whose one end alone went dark: the far end hears nothing, and gives up after three hellos', () => {
    const trace = run(asMeant(), 20, { kind: 'link-down', at: 5, link: UPLINK, end: 'a' });
    const opened = spans(trace, 'ticket-hall:2').find((s) => s.state === 'forwarding')!;
    expect(opened.at / 1e6).toBeGreaterThan(8);
    expect(opened.at / 1e6).toBeLessThan(12);
  });
});

test('a root that is lost: another takes over, and the story says so', () => {
  const design = asMeant();
  const trace = run(design, 40, { kind: 'root-off', at: 5, vlan: 110 });
  const roots = trace.roots.find((r) => r.tree === 'vlan-110')!.spans;
  expect([roots[0]!.roots, roots.at(-1)!.roots]).toEqual([['core-east'], ['core-west']]);
  expect(text(design, trace)[0]).toBe('The root of VLAN 110, core-east, off.');
});

test('of a partitioned tree, the root that most switches follow is the one that is lost', () => {
  const base = asMeant();
  // The first switch of the list stands alone, and is root of nothing but itself.
  const [first] = base.switches.filter((s) => s.tier === 'access');
  const own = new Set(base.ports.filter((p) => p.switch === first!.id).map((p) => p.id));
  const apart = (end: Design['links'][number]['a']) => 'port' in end && own.has(end.port);
  const links = base.links.map((l) =>
    'port' in l.a && 'port' in l.b && (apart(l.a) || apart(l.b)) ? { ...l, down: true } : l,
  );
  const design = { ...base, links, switches: [first!, ...base.switches.filter((s) => s !== first)] };
  const trace = run(design, 20, { kind: 'root-off', at: 5, vlan: 110 });
  expect(text(design, trace)).toContain('The root of VLAN 110, core-east, off.');
});

test('a member lost: the bundle stays up, its cost rises', () => {
  const design = asMeant();
  const trace = run(design, 20, { kind: 'link-down', at: 5, link: 'core-east:1--core-west:1' });
  expect(text(design, trace)).toContain('Bundle core-east to-core-west: 1 of 2 members active.');
  expect(spanAt(spans(trace, 'core-east:lag101'), 20e6)!.state).toBe('forwarding');
});

test('bundles say hello on, whatever happens elsewhere: none is given up after its long timeout', () => {
  const trace = run(
    asMeant(),
    200,
    { kind: 'link-down', at: 5, link: UPLINK },
    { kind: 'link-up', at: 45, link: UPLINK },
  );
  expect(trace.happenings.filter((h) => h.kind === 'bundle')).toEqual([]);
});

describe('guards', () => {
  test('a BPDU guard shuts the port, comes back after its interval, trips again while the cause lasts', () => {
    const design = asMeant();
    const trace = run(
      design,
      90,
      { kind: 'intruder', at: 5, port: 'ticket-hall:10', priority: 0 },
      { kind: 'unplug', at: 50, port: 'ticket-hall:10' },
    );
    const guards = trace.happenings.filter((h) => h.kind === 'guard' || h.kind === 'recover');
    expect(guards.map((h) => [h.kind, Math.round(h.at / 1e6)])).toEqual([
      ['guard', 5],
      ['recover', 35],
      ['guard', 35],
      ['recover', 65],
    ]);
    expect(trace.roots.find((r) => r.tree === 'vlan-110')!.spans).toHaveLength(1);
  });
  test('without it an intruder becomes root; a root guard holds it off', () => {
    const event = { kind: 'intruder' as const, at: 5, port: 'ticket-hall:10', priority: 0 };
    const taken = run(unguarded(), 30, event);
    expect(taken.roots.find((r) => r.tree === 'vlan-110')!.spans.at(-1)!.roots).toEqual([]);
    const base = unguarded();
    const held = { ...base, ports: base.ports.map((p) => (p.id === 'ticket-hall:10' ? { ...p, rootGuard: true } : p)) };
    const trace = run(held, 30, event);
    expect(trace.roots.find((r) => r.tree === 'vlan-110')!.spans.at(-1)!.roots).toEqual(['core-east']);
    expect(spans(trace, 'ticket-hall:10').at(-1)!.state).toBe('guarded');
    expect(text(held, trace)).toContain('ticket-hall 10 is blocked by its guard in VLAN 110.');
    const classic = run({ ...held, mode: 'per-vlan-stp' }, 60, event, {
      kind: 'unplug',
      at: 20,
      port: 'ticket-hall:10',
    });
    expect(classic.roots.find((r) => r.tree === 'vlan-110')!.spans).toHaveLength(1);
    const lane = spans(classic, 'ticket-hall:10');
    expect(spanAt(lane, 15e6)!.state).toBe('guarded');
    expect(spanAt(lane, 59e6)!.state).toBe('forwarding');
  });
  test('a loop guard holds a port back that stops hearing, instead of opening it', () => {
    const event = { kind: 'bpdu-loss' as const, at: 5, link: 'quay-b:3--ticket-hall:2', from: 'a' };
    const classic: Design = { ...asMeant(), mode: 'per-vlan-stp' };
    const opened = run(classic, 80, event);
    expect(opened.loops.find((l) => opened.classes[l.vlan]?.includes(110))!.from / 1e6).toBeGreaterThan(50);
    const guard = (design: Design): Design => ({
      ...design,
      ports: design.ports.map((p) => (p.id === 'ticket-hall:2' ? { ...p, loopGuard: true } : p)),
    });
    const held = run(guard(classic), 80, event);
    expect(held.loops).toEqual([]);
    expect(spans(held, 'ticket-hall:2').at(-1)!.state).toBe('guarded');
    // The rapid protocol notices a neighbour that does not receive, and the other end is cut instead.
    const rapid = run(asMeant(), 40, event);
    expect(rapid.loops).toEqual([]);
    expect(spans(rapid, 'quay-b:3').at(-1)!.state).not.toBe('forwarding');
    expect(spans(run(guard(asMeant()), 40, event), 'ticket-hall:2').at(-1)!.state).toBe('guarded');
  });
});

test.each(['per-vlan-rstp', 'rstp'] as const)(
  '%s: hosts on ports that are no edge ports talk from the start',
  (mode) => {
    const base = unguarded();
    const ports = base.ports.map(({ edge: _, autoEdge: __, ...p }) => p);
    // Without bundles, whose negotiation would take longer.
    const trace = run({ ...base, mode, ports, bundles: [] }, 10);
    expect(trace.contacts.map((lane) => gapsOf(lane))).toEqual([[], []]);
  },
);

describe('loops', () => {
  test('spanning tree switched off where it cut: frames loop, over the links that are named', () => {
    const design = asMeant();
    const trace = run(design, 20, { kind: 'tree-off', at: 5, switch: 'ticket-hall' });
    const loop = trace.loops.find((l) => trace.classes[l.vlan]?.includes(110))!;
    expect([loop.from, loop.rate]).toEqual([5_000_000, 1000]);
    // It passes on the BPDUs of the others, and they cut it off between them.
    expect(loop.to! / 1e6).toBeLessThan(8);
    expect(loop.ports).toEqual(expect.arrayContaining(['ticket-hall:1', 'ticket-hall:2', 'quay-a:3', 'quay-b:3']));
    expect(text(design, trace).some((t) => t.startsWith('Frames loop in VLANs 110'))).toBe(true);
  });
  test('a hub with a loop in an edge port sends everything back; a guard shuts the port', () => {
    const trace = run(unguarded(), 20, { kind: 'hub-loop', at: 5, port: 'ticket-hall:10' });
    expect(trace.loops.map((l) => [trace.classes[l.vlan], l.ports])).toEqual([[[110], ['ticket-hall:10']]]);
    const guarded = run(asMeant(), 20, { kind: 'hub-loop', at: 5, port: 'ticket-hall:10' });
    expect(spans(guarded, 'ticket-hall:10').at(-1)!.state).toBe('guarded');
  });
  test('a static bundle of one end alone: both ports of the other end forward, and nothing loops', () => {
    const design: Design = { ...asMeant(), mode: 'per-vlan-stp' };
    const trace = run(design, 90, {
      kind: 'set',
      at: 5,
      label: 'static at one end',
      edits: [
        setField('bundle', 'quay-b:lag102', 'kind', 'static'),
        { type: 'remove', kind: 'bundle', id: 'cold-store:lag103' },
      ],
    });
    expect(trace.loops).toEqual([]);
    expect(spans(trace, 'cold-store:2').at(-1)).toMatchObject({ role: 'designated', state: 'forwarding' });
  });
});

describe('events', () => {
  test('a cable plugged in between two free ports is cut at one end', () => {
    const base = asMeant();
    const more = ['gate', 'crane-yard'].map((at) => ({ id: `${at}:9`, switch: at, name: '9', number: 9, speed: 1000 }));
    const trace = run({ ...base, ports: [...base.ports, ...more] }, 15, {
      kind: 'cable',
      at: 5,
      a: 'gate:9',
      b: 'crane-yard:9',
    });
    const states = ['gate:9', 'crane-yard:9'].map((p) => spans(trace, p).at(-1)!.state).sort();
    expect(states).toEqual(['discarding', 'forwarding']);
  });
  test('a flapping link goes down and up as often as it should', () => {
    const trace = run(asMeant(), 20, { kind: 'flap', at: 5, link: UPLINK, times: 3, every: 1 });
    expect(spans(trace, 'quay-a:3').filter((s) => s.state === 'disabled')).toHaveLength(3);
    const turns = text(asMeant(), trace).filter((t) => t.startsWith('Link quay-a 3 to ticket-hall 1 flaps'));
    expect(turns.map((t) => t.replace(/^.*: /, ''))).toEqual([
      'lost, 1 of 3.',
      'back, 1 of 3.',
      'lost, 2 of 3.',
      'back, 2 of 3.',
      'lost, 3 of 3.',
      'back, 3 of 3.',
    ]);
  });
  test('an event about a link that is gone is void, and said to be', () => {
    const design = asMeant();
    const trace = run(design, 10, { kind: 'link-down', at: 5, link: 'gone' });
    expect(text(design, trace)).toEqual(["There is no link 'gone' in the design: the event has no effect."]);
  });
  test('a change that is no edit is void, says where it is wrong, and what follows is carried out', () => {
    const design = asMeant();
    const edits = [{ type: 'set', kind: 'port', id: 'gate:1', field: 7, value: 1 }];
    const trace = run(
      design,
      10,
      { kind: 'set', at: 5, label: 'a cost', edits },
      { kind: 'link-down', at: 6, link: UPLINK },
    );
    expect(text(design, trace)).toContainEqual(
      expect.stringMatching(
        /^Change 1 of 'a cost' is not an edit of a design, at field: .+ The event has no effect\.$/,
      ),
    );
    expect(spanAt(spans(trace, 'quay-a:3'), 7e6)!.state).toBe('disabled');
  });
});

test('the same design, script and seed give the same trace, and another seed another one', () => {
  const events: Loose[] = [{ kind: 'link-down', at: 5, link: UPLINK }];
  const of = (seed: number) => JSON.stringify([...rehearse(asMeant(), { ...script(12, ...events), seed }).frames.at]);
  expect(of(1)).toBe(of(1));
  expect(of(1)).not.toBe(of(2));
});

test('a run that grows too long is stopped, says so, and keeps what there is', () => {
  const trace = rehearse(asMeant(), script(60), { most: 2000 });
  expect(trace.ended).toBe('limit');
  expect(trace.sentence).toMatch(/^Stopped at \d+\.\d s, at the limit of 2001 frames and timers/);
  expect(trace.ports.length).toBeGreaterThan(0);
});

test('a script that never comes to rest says what keeps changing', () => {
  const trace = run(asMeant(), 40, { kind: 'flap', at: 1, link: UPLINK, times: 19, every: 1 });
  expect(trace.sentence).toMatch(/^Not converged: .*quay-a 3/);
});

test('timers for a diameter of seven and a hello of two seconds are those that every switch has', () => {
  expect(timersForDiameter(7, 2)).toMatchObject({ maxAge: 20, forwardDelay: 15, legal: true });
});
