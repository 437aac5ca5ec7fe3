import { asMeant, asPair } from '../../demo/brackwater';
import { setField } from '../design';
import type { Design, Edit, Mode } from '../design';
import { framesOf, gapsOf, spanAt, storyOf } from '../trace';
import type { Trace } from '../trace';
import { runOf } from '../../../tests/support/rehearsals';

const run = (design: Design, until: number, ...events: object[]): Trace => runOf(design, until, events, true);
const set = (at: number, ...edits: Edit[]) => ({ kind: 'set', at, label: 'a change', edits });
/** Ports that changed in a tree after a moment. */
const moved = (trace: Trace, tree: string, after = 0) =>
  trace.ports.filter((l) => l.tree === tree && l.spans.some((s) => s.at > after)).map((l) => l.port);
const lastOf = (trace: Trace, port: string, tree = 'vlan-110') =>
  trace.ports.find((l) => l.port === port && l.tree === tree)!.spans.at(-1)!;
const hellosFrom = (trace: Trace, port: string, from: number, vlan: number | null = 110) =>
  [...framesOf(trace.frames)].filter((f) => f.from === port && f.at > from && f.vlan === vlan && f.mark !== 'lacp')
    .length;
const restarted = (design: Design, trace: Trace) =>
  storyOf(design, trace).flatMap((l) => /^(.*) restarts/.exec(l.text)?.[1] ?? []);

describe.each(['per-vlan-rstp', 'per-vlan-stp'] as Mode[])('a switch that is set while it runs: %s', (mode) => {
  const design: Design = { ...asMeant(), mode };
  test('a VLAN taken off a trunk leaves the trees of the others as they are', () => {
    const trace = run(design, 60, set(5, setField('port', 'gate:1', 'vlans', '110-120,140-150,160,199')));
    for (const tree of ['vlan-110', 'vlan-120', 'vlan-140']) expect(moved(trace, tree)).toEqual([]);
    expect(lastOf(trace, 'gate:1', 'vlan-130')).toMatchObject({ role: 'disabled' });
    expect(lastOf(trace, 'gate:2', 'vlan-130')).toMatchObject({ role: 'root', state: 'forwarding' });
    expect(restarted(design, trace)).toEqual([]);
    expect(trace.contacts.flatMap((c) => (c.vlan === 130 ? [] : gapsOf(c)))).toEqual([]);
    expect(hellosFrom(trace, 'quay-a:4', 50_000_000)).toBeGreaterThan(0);
  });
  test('put back on, the port takes part again as if it had never gone', () => {
    const all = design.ports.find((p) => p.id === 'gate:1')!.vlans;
    const trace = run(
      design,
      90,
      set(5, setField('port', 'gate:1', 'vlans', '110')),
      set(45, setField('port', 'gate:1', 'vlans', all)),
    );
    const [own] = Object.entries(trace.classes).find(([, vlans]) => vlans.includes(130))!;
    const first = trace.ports.find((l) => l.port === 'gate:1' && l.tree === `vlan-${own}`)!.spans[0]!;
    expect(first.role).toBe('root');
    expect(lastOf(trace, 'gate:1', `vlan-${own}`)).toMatchObject({ role: first.role, state: first.state });
  });
  test('other timers of the root reach every switch, and no port changes state for it', () => {
    const timers = [
      setField('switch', 'core-east', 'helloTime', 1),
      setField('switch', 'core-east', 'forwardDelay', 12),
    ];
    const trace = run(design, 20, set(5, ...timers));
    expect(moved(trace, 'vlan-110')).toEqual([]);
    const late = hellosFrom(trace, 'core-east:3', 10_000_000);
    const early = hellosFrom(run(design, 20), 'core-east:3', 10_000_000);
    expect(late).toBeGreaterThan(early * 1.7);
  });
  test('a bundle that one end has no more goes on as single links', () => {
    const trace = run(design, 120, set(5, { type: 'remove', kind: 'bundle', id: 'cold-store:lag103' }));
    expect(restarted(design, trace)).toEqual([]);
    expect(trace.ports.some((l) => l.port === 'cold-store:lag103' && l.spans.at(-1)!.state !== 'disabled')).toBe(false);
    expect(['cold-store:1', 'cold-store:2'].map((p) => lastOf(trace, p).role).sort()).toEqual(['alternate', 'root']);
  });
});

test('another region restarts on the switch that has it, and its neighbours find it outside', () => {
  const design: Design = {
    ...asMeant(),
    mode: 'mstp',
    regions: [
      { id: 'r', name: 'quay', revision: 1, map: { '1': '110,120' } },
      { id: 'q', name: 'yard', revision: 1, map: { '1': '110' } },
    ],
  };
  const trace = run(design, 40, set(5, setField('switch', 'gate', 'region', 'q')));
  expect(restarted(design, trace)).toEqual(['gate']);
  expect(lastOf(trace, 'gate:1', 'msti-1').role).toBe('master');
  expect(hellosFrom(trace, 'gate:10', 30_000_000, null)).toBeGreaterThan(0);
});

test('a member put into a bundle joins it, and those that carry do not stop for it', () => {
  const design = asMeant();
  const bundle = design.bundles.find((b) => b.id === 'cold-store:lag103')!;
  const less: Design = {
    ...design,
    bundles: design.bundles.map((b) => (b === bundle ? { ...b, members: b.members.slice(0, 1) } : b)),
  };
  const trace = run(less, 30, set(5, setField('bundle', bundle.id, 'members', bundle.members)));
  const counts = trace.happenings.flatMap((h) => (h.kind === 'bundle' && h.bundle === bundle.id ? [h.active] : []));
  expect(counts).toEqual([2]);
  const { spans } = trace.ports.find((l) => l.port === bundle.id && l.tree === 'vlan-110')!;
  // Its cost falls with the member, so that it becomes the root port.
  expect(spans.map((s) => `${s.role} ${s.state}`)).toEqual(['alternate discarding', 'root forwarding']);
});

describe('a pair that loses its peer link', () => {
  const design = asPair();
  const peers = design.pairs[0]!.peer;
  const trace = run(design, 60, ...peers.map((link) => ({ kind: 'link-down', at: 5, link })));
  test('its primary goes on, the second begins as a switch of its own', () => {
    expect(restarted(design, trace)).toEqual(['core-west']);
    expect(trace.roots.find((r) => r.tree === 'vlan-110')!.spans.every((s) => s.roots.includes('core-east'))).toBe(
      true,
    );
    expect(hellosFrom(trace, 'core-east:3', 30_000_000)).toBeGreaterThan(0);
  });
  test('and is accepted again when the link is whole', () => {
    const back = run(
      design,
      90,
      ...peers.map((link) => ({ kind: 'link-down', at: 5, link })),
      ...peers.map((link) => ({ kind: 'link-up', at: 40, link })),
    );
    for (const lane of trace.ports.filter((l) => l.tree === 'vlan-110')) {
      const start = lane.spans[0]!;
      const end = back.ports.find((l) => l.port === lane.port && l.tree === 'vlan-110')!.spans.at(-1)!;
      expect([lane.port, end.role]).toEqual([lane.port, start.role]);
    }
    expect(spanAt(back.roots.find((r) => r.tree === 'vlan-110')!.spans, 89e6)!.roots).toEqual(['core-east']);
  });
});
