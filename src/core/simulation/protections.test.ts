/** What guards ports against mistakes and against links that fail by half: silence, one-way links, storms, yielding filters. */
import type { Design } from '../design';
import { decodeOampdu, openEnvelope } from '../protocols/frames';
import { framesOf, standingOut, storyOf } from '../trace';
import { designFrom } from '../../../tests/support/networks';
import { runOf } from '../../../tests/support/rehearsals';

const MAC = (n: number) => `00:00:5e:00:53:0${n}`;
const end = (bridge: string, port: number) => ({ bridge, port, cost: 4, priority: 128 });
/** a, the root, and b, with `cables` between them. */
const pair = (cables: number, mode: Design['mode'] = 'rstp') =>
  designFrom(
    [
      { id: 'a', mac: MAC(1), priority: 4096 },
      { id: 'b', mac: MAC(2), priority: 32768 },
    ],
    Array.from({ length: cables }, (_, i) => ({ ends: [end('a', i + 1), end('b', i + 1)] })),
    mode,
  );
const set = (design: Design, ports: Record<string, object>, switches: Record<string, object> = {}): Design => ({
  ...design,
  ports: design.ports.map((p) => ({ ...p, ...ports[p.id] })),
  switches: design.switches.map((s) => ({ ...s, ...switches[s.id] })),
});
const stateAt = (trace: ReturnType<typeof runOf>, port: string, seconds: number) =>
  trace.ports.find((l) => l.port === port)!.spans.findLast((s) => s.at <= seconds * 1e6)?.state;
const lost = (frames: string) => ({ kind: 'bpdu-loss', at: 10, link: 'l0', from: 'b', frames });

describe('silence guard', () => {
  const both = set(pair(1), { 'a.1': { silenceGuard: true }, 'b.1': { silenceGuard: true } });
  test('has every port speak, the root port too', () => {
    const trace = runOf(both, 10, []);
    const from = new Set([...framesOf(trace.frames)].map((f) => f.from));
    expect([[...from].sort(), stateAt(trace, 'a.1', 9)]).toEqual([['a.1', 'b.1'], 'forwarding']);
  });
  test('holds a designated port back three hellos after the other end fell silent, until it speaks again', () => {
    const trace = runOf(both, 60, [lost('bpdus'), { kind: 'bpdu-heal', at: 30, link: 'l0' }]);
    expect([9, 18, 29, 50].map((s) => stateAt(trace, 'a.1', s))).toEqual([
      'forwarding',
      'guarded',
      'guarded',
      'forwarding',
    ]);
    expect(standingOut(both, trace, 20e6).map((s) => s.text)).toEqual([
      'a 1 is blocked by silence guard: it receives no BPDUs, and stays blocked until it does.',
    ]);
  });
});

describe('one-way detection', () => {
  const shut = { oneWay: 'shut' };
  test('both ends shut after five missed keepalives, and the fault reaches the other end', () => {
    const design = set(pair(1), { 'a.1': shut, 'b.1': shut });
    const trace = runOf(design, 60, [lost('all')]);
    const guards = trace.happenings.flatMap((h) => (h.kind === 'guard' ? [[h.port, h.guard, h.until]] : []));
    expect(guards.map(([port]) => port)).toEqual(['a.1']);
    const [first] = trace.happenings.flatMap((h) => (h.kind === 'guard' ? [h.at / 1e6] : []));
    expect(first).toBeGreaterThan(13);
    expect(first).toBeLessThan(16);
    expect(stateAt(trace, 'b.1', 20)).toBe('disabled');
  });
  test('a lost data plane alone goes unnoticed, and so do lost BPDUs', () => {
    const design = set(pair(1), { 'a.1': shut, 'b.1': shut });
    for (const frames of ['data', 'bpdus'])
      expect(runOf(design, 40, [lost(frames)]).happenings.filter((h) => h.kind === 'guard')).toEqual([]);
  });
  test('where it only reports, both ends do, and the link goes on', () => {
    const design = set(pair(1), { 'a.1': { oneWay: 'report' }, 'b.1': { oneWay: 'report', oneWayInterval: 2 } });
    const trace = runOf(design, 40, [lost('control')]);
    expect(trace.happenings.flatMap((h) => (h.kind === 'one-way' ? [[h.port, h.how]] : []))).toEqual([
      ['a.1', 'deaf'],
      ['b.1', 'unheard'],
    ]);
    expect(storyOf(design, trace).some((l) => l.text.startsWith('a 1 receives no more keepalives'))).toBe(true);
  });
  test('comes back after its own interval, and is shut again while the link is as it was', () => {
    const design = set(pair(1), { 'a.1': shut, 'b.1': shut }, { a: { oneWayRecovery: 30, guardRecovery: 300 } });
    const trace = runOf(design, 100, [lost('all'), { kind: 'bpdu-heal', at: 20, link: 'l0' }]);
    expect(trace.happenings.filter((h) => h.kind === 'recover')).toHaveLength(1);
    expect(stateAt(trace, 'a.1', 95)).toBe('forwarding');
  });
  test('keepalives are Information OAMPDUs to the slow protocols address', () => {
    const design = set(pair(1), { 'a.1': shut, 'b.1': shut });
    const octets = [...framesOf(runOf(design, 5, []).frames)].filter((f) => f.kind === 'oam').map((f) => f.octets);
    const { kind, payload } = openEnvelope(octets[0]!);
    expect([kind, decodeOampdu(payload), [...octets[0]!.subarray(0, 6)]]).toEqual([
      'oampdu',
      { fault: false, hears: true },
      [0x01, 0x80, 0xc2, 0, 0, 0x02],
    ]);
  });
});

describe('storm limit', () => {
  const loop = { 'b.2': { bpduFilter: true } };
  test('shuts a port of the loop that allows least, a second after the loop began', () => {
    const design = set(pair(2), { ...loop, 'a.1': { stormLimit: 5, stormAction: 'shut' }, 'b.1': { stormLimit: 1 } });
    const trace = runOf(design, 30, []);
    expect(trace.happenings.flatMap((h) => (h.kind === 'guard' ? [[h.port, h.guard, h.at]] : []))).toEqual([
      ['a.1', 'storm', 1_000_000],
    ]);
    expect(trace.loops.map((l) => l.to)).toEqual([1_000_000]);
  });
  test('one that drops bounds what loops', () => {
    const trace = runOf(set(pair(2), { ...loop, 'a.1': { stormLimit: 2 } }), 5, []);
    expect(trace.loops.map((l) => [l.rate, l.limited, l.to])).toEqual([[1000, 20, null]]);
  });
});

describe('filters and guards of edge ports', () => {
  test('a filter that yields sends for ten hellos, and is none any more once a BPDU was received', () => {
    const yielding = { bpduFilter: true, filterYields: true };
    const trace = runOf(set(pair(2), { 'b.2': yielding }), 30, []);
    expect([stateAt(trace, 'b.2', 29), trace.loops]).toEqual(['discarding', []]);
    const alone = designFrom([{ id: 'a', mac: MAC(1), priority: 4096 }], [{ ends: [end('a', 1)] }], 'rstp');
    const quiet = runOf(set(alone, { 'a.1': yielding }), 60, []);
    expect(quiet.frames.count).toBe(0);
  });
  test('a switch gives its edge ports a guard, unless the port says otherwise', () => {
    const design = set(
      pair(2),
      { 'b.1': { edge: true, bpduGuard: false }, 'b.2': { edge: true } },
      { b: { edgeGuard: true } },
    );
    const trace = runOf(design, 20, []);
    expect([stateAt(trace, 'b.1', 19), stateAt(trace, 'b.2', 19)]).toEqual(['forwarding', 'guarded']);
  });
});

test('a port with a hello time of its own keeps it, whatever the root says', () => {
  const trace = runOf(set(pair(1), { 'a.1': { helloTime: 5 } }), 60, []);
  const sent = [...framesOf(trace.frames)].filter((f) => f.from === 'a.1').map((f) => f.at);
  expect(new Set(sent.slice(1).map((at, i) => at - sent[i]!))).toEqual(new Set([5_000_000]));
  expect(trace.ports.flatMap((l) => l.spans.slice(1))).toEqual([]);
});

test('BPDUs of single VLANs that circle where a filter closes a ring are a loop, and no end of events', () => {
  const ring = (ids: readonly string[]) => ids.map((id, i): [string, string] => [id, ids[(i + 1) % ids.length]!]);
  const used: Record<string, number> = {};
  const next = (id: string) => end(id, (used[id] = (used[id] ?? 0) + 1));
  const design = designFrom(
    ['a', 'b', 'c', 'p'].map((id, i) => ({ id, mac: MAC(i + 1), priority: 32768 })),
    [...ring(['a', 'b', 'c']), ['a', 'c'] as [string, string], ['p', 'a'] as [string, string]].map(([x, y]) => ({
      ends: [next(x), next(y)],
    })),
    'rstp',
    [1, 10],
  );
  const switches = design.switches.map((s) => (s.id === 'p' ? { ...s, protocol: 'per-vlan-rstp' as const } : s));
  const trace = runOf(
    set({ ...design, switches }, { 'b.2': { bpduFilter: true }, 'c.3': { bpduFilter: true } }),
    10,
    [],
  );
  expect([trace.ended, trace.handled < 100_000]).toEqual(['end', true]);
  expect(trace.loops.map((l) => l.to)).toEqual(trace.loops.map(() => null));
  expect(trace.loops.length).toBeGreaterThan(0);
});

test('a port that has become an edge port by itself goes down and comes back', () => {
  const alone = set(pair(1), { 'a.1': { autoEdge: true }, 'b.1': { autoEdge: true, bpduFilter: true } });
  const trace = runOf(alone, 60, [
    { kind: 'link-down', at: 20, link: 'l0' },
    { kind: 'link-up', at: 30, link: 'l0' },
  ]);
  expect([trace.ended, stateAt(trace, 'a.1', 25), stateAt(trace, 'b.1', 59)]).toEqual([
    'end',
    'disabled',
    'forwarding',
  ]);
});
