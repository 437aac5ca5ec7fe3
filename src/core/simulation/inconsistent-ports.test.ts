import { emptyDesign, setField } from '../design';
import type { Design, Mode } from '../design';
import { fieldsOf, framesOf, frameAt, spanAt, standingOut, storyOf, whyReceived } from '../trace';
import { openEnvelope } from '../protocols/frames';
import type { Trace } from '../trace';
import { runOf } from '../../../tests/support/rehearsals';

/** Two switches, one cable, with what is untagged at either end. */
function oneCable(a: number | undefined, b: number | undefined, mode: Mode = 'per-vlan-rstp'): Design {
  const design = emptyDesign('one');
  design.mode = mode;
  design.vlans = [1, 10, 20, 30].map((number) => ({ id: `v${number}`, number }));
  design.switches = ['a', 'b'].map((id, i) => ({ id, name: id, mac: `00:00:5e:00:53:0${i + 1}` }));
  for (const [id, native] of [
    ['a', a],
    ['b', b],
  ] as const)
    design.ports.push({
      id: `${id}1`,
      switch: id,
      name: '1',
      number: 1,
      speed: 1000,
      ...(native === undefined ? {} : { native }),
    });
  design.links.push({ id: 'ab', a: { port: 'a1' }, b: { port: 'b1' } });
  return design;
}
const set = (at: number, port: string, native: number) => ({
  kind: 'set',
  at,
  label: 'untagged',
  edits: [setField('port', port, 'native', native)],
});
const laneOf = (trace: Trace, port: string, vlan: number) =>
  trace.ports.find((l) => l.port === port && trace.classes[Number(/\d+$/.exec(l.tree)![0])]!.includes(vlan))!.spans;

test('a BPDU in another VLAN than its own holds both ends in both VLANs, and no other', () => {
  const trace = runOf(oneCable(10, 20), 10, []);
  for (const port of ['a1', 'b1'])
    for (const vlan of [10, 20])
      expect(spanAt(laneOf(trace, port, vlan), 5e6)).toMatchObject({ role: 'alternate', state: 'inconsistent' });
  for (const vlan of [1, 30]) expect(spanAt(laneOf(trace, 'b1', vlan), 5e6)?.state).toBe('forwarding');
  expect(trace.reach.find((l) => trace.classes[l.vlan]!.includes(10))!.spans.at(-1)!.apart).toHaveLength(1);
});

test.each([
  ['per-vlan-rstp', 11.1],
  ['per-vlan-stp', 60],
] as const)('ends that come to agree are free once no such BPDU has come for a while: %s', (mode, by) => {
  const trace = runOf(oneCable(10, 20, mode), 70, [set(5, 'b1', 10)]);
  for (const port of ['a1', 'b1']) {
    const free = laneOf(trace, port, 10).find((s) => s.state !== 'inconsistent')!;
    expect(free.at / 1e6).toBeGreaterThan(9);
    const open = laneOf(trace, port, 10).find((s) => s.state === 'forwarding')!;
    expect(open.at / 1e6).toBeLessThan(by + 0.5);
  }
});

test('ends that come to differ stop, and the story and the moment say why', () => {
  const design = oneCable(10, 10);
  const trace = runOf(design, 20, [set(5, 'b1', 20)]);
  const heldFrom = (port: string) => laneOf(trace, port, 10).find((x) => x.state === 'inconsistent')!.at / 1e6;
  // The end that listens hears it with the next hello; the other one when that end begins to speak for itself.
  expect(heldFrom('b1')).toBeLessThan(7);
  expect(heldFrom('a1')).toBeLessThan(5 + 2 + 3 * 2 + 2);
  const text = storyOf(design, trace).map((l) => l.text);
  expect(text).toContain('a 1 is inconsistent in VLANs 10, 20: the ends of its cable differ in their untagged VLAN.');
  const after = { ...design, ports: design.ports.map((p) => (p.id === 'b1' ? { ...p, native: 20 } : p)) };
  expect(standingOut(after, trace, 15e6).map((s) => s.text)).toContain(
    'a 1 is inconsistent in VLANs 10, 20: untagged frames belong to VLAN 10 here, and to VLAN 20 at b 1.',
  );
});

test('such a BPDU has its sentence', () => {
  const trace = runOf(oneCable(10, 20), 10, []);
  const told = [...framesOf(trace.frames)].flatMap((_, i) => {
    const frame = frameAt(trace.frames, i);
    return frame.heard.map((h) => whyReceived(trace, frame, h, false)?.sentence ?? '');
  });
  expect(
    told.filter((s) => s.startsWith('It belongs to another VLAN than the one it arrived in')).length,
  ).toBeGreaterThan(5);
});

test('an access port and a trunk that has its VLAN untagged understand each other, TCNs and all', () => {
  for (const mode of ['per-vlan-rstp', 'per-vlan-stp'] as const) {
    const design = oneCable(20, 20, mode);
    design.ports[1] = { ...design.ports[1]!, vlans: '20' };
    const trace = runOf(design, 10, []);
    expect(spanAt(laneOf(trace, 'b1', 20), 5e6)).toMatchObject({ role: 'root', state: 'forwarding' });
  }
});

/** What is said of frames that were sent, with the VLAN that they name, and whether they are tagged. */
const sentFrom = (trace: Trace, port: string) =>
  [...framesOf(trace.frames)].flatMap((f) => {
    if (f.from !== port) return [];
    const { kind, named, vlan } = openEnvelope(f.octets);
    return [`${kind} ${named ?? '-'} ${vlan === null ? 'untagged' : 'tagged'}`];
  });

test('VLAN 1 sends its BPDUs untagged and per VLAN, the others in their VLAN; the second of VLAN 1 is ignored', () => {
  const trace = runOf(oneCable(30, 30), 10, []);
  // The other VLANs cannot differ from VLAN 1 here, and are run as it.
  expect([...new Set(sentFrom(trace, 'a1'))].sort()).toEqual(['bpdu - untagged', 'vlan-bpdu 1 tagged']);
  const again = [...framesOf(trace.frames)].filter((f) => openEnvelope(f.octets).named === 1);
  expect(again.length).toBeGreaterThan(2);
  for (const frame of again) {
    expect(frame.heard.map((h) => h.info)).toEqual(['again']);
    expect(fieldsOf(frame.octets).at(-1)).toMatchObject({ name: 'VLAN of the tree', value: '1' });
  }
});

test('what a field says stands in the octets that it names', () => {
  const trace = runOf(oneCable(10, 20), 6, []);
  const named = [...framesOf(trace.frames)].filter((f) => (openEnvelope(f.octets).named ?? 0) > 1);
  expect(named.length).toBeGreaterThan(3);
  for (const { octets } of named) {
    const field = fieldsOf(octets).find((f) => f.name === 'VLAN of the tree')!;
    expect((octets[field.at]! << 8) | octets[field.at + 1]!).toBe(Number(field.value));
  }
});

test('a cable that fails and comes back is held again while its ends differ', () => {
  const trace = runOf(oneCable(10, 20), 40, [
    { kind: 'link-down', at: 5, link: 'ab' },
    { kind: 'link-up', at: 10, link: 'ab' },
  ]);
  const all = laneOf(trace, 'b1', 10).map((s) => s.state);
  expect(all.filter((s) => s === 'inconsistent').length).toBeGreaterThanOrEqual(2);
  expect(all).not.toContain('forwarding');
  expect(spanAt(laneOf(trace, 'b1', 10), 7e6)?.state).toBe('disabled');
  expect(all.at(-1)).toBe('inconsistent');
});

test('ends that differ between switches with one tree are nothing to spanning tree', () => {
  const trace = runOf(oneCable(10, 20, 'rstp'), 10, []);
  for (const { spans } of trace.ports) expect(spans.map((s) => s.state)).not.toContain('inconsistent');
});

test('a pair loses contact in the VLANs that are held, and keeps it in the others', () => {
  const design = oneCable(10, 10);
  for (const vlan of [10, 30])
    for (const s of ['a', 'b']) {
      const id = `${s}-${vlan}`;
      design.ports.push({
        id: `${id}-port`,
        switch: s,
        name: `h${vlan}`,
        number: vlan,
        speed: 1000,
        vlans: `${vlan}`,
        native: vlan,
        edge: true,
      });
      design.hosts.push({ id, name: id });
      design.links.push({ id: `${id}-cable`, a: { port: `${id}-port` }, b: { host: id } });
    }
  const trace = runOf(design, 20, [set(5, 'b1', 20)], true);
  const ok = (vlan: number, at: number) => {
    const lane = trace.contacts.find((c) => c.vlan === vlan)!;
    return spanAt(lane.spans, at)!.ok;
  };
  expect([ok(10, 4e6), ok(10, 19e6), ok(30, 4e6), ok(30, 19e6)]).toEqual([true, false, true, true]);
});
