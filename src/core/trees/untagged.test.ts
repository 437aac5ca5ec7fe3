import fc from 'fast-check';
import { networks } from '../../../tests/support/networks';
import { emptyDesign } from '../design';
import { vlanMembership } from '../standard';
import type { Design, Mode } from '../design';
import { explainPort } from './ledger';
import { heldPorts } from './untagged';
import { roleAt, solveDesign } from './state';
import { peersOf } from '../network';

/** Two switches with two cables; what is untagged at either end of the first, and what they carry. */
export function twoCables(
  natives: readonly [number | undefined, number | undefined],
  vlans: readonly [string, string] = ['all', 'all'],
  mode: Mode = 'per-vlan-rstp',
): Design {
  const design = emptyDesign('two');
  design.mode = mode;
  design.vlans = [1, 10, 20, 30].map((number) => ({ id: `v${number}`, number }));
  design.switches = ['a', 'b'].map((id, i) => ({ id, name: id, mac: `00:00:5e:00:53:0${i + 1}` }));
  for (const number of [1, 2])
    for (const [i, id] of ['a', 'b'].entries()) {
      const native = number === 1 ? natives[i] : undefined;
      design.ports.push({
        id: `${id}${number}`,
        switch: id,
        name: `${number}`,
        number,
        speed: 1000,
        ...(number === 1 ? { vlans: vlans[i] } : {}),
        ...(native === undefined ? {} : { native }),
      });
    }
  for (const n of [1, 2]) design.links.push({ id: `l${n}`, a: { port: `a${n}` }, b: { port: `b${n}` } });
  return design;
}
/** Where a port is held. */
function held(design: Design): Record<string, readonly number[]> {
  const solved = solveDesign(design);
  return Object.fromEntries(
    [...heldPorts(solved.topology)].map(([port, list]) => [solved.topology.ports[port]!.element.id, list]),
  );
}
/** Roles of a1, b1, a2, b2 in a VLAN. */
function roles(design: Design, vlan: number): string {
  const solved = solveDesign(design);
  const of = solved.byId.get(`vlan-${vlan}`)!;
  return ['a1', 'b1', 'a2', 'b2'].map((id) => roleAt(of, solved.topology.portIndex.get(id)!)).join(' ');
}

describe('ends that differ in what travels untagged', () => {
  test('hold the cable in both VLANs; the others, and the other cable, are as they were', () => {
    const design = twoCables([10, 20]);
    expect(held(design)).toEqual({ a1: [10, 20], b1: [20, 10] });
    for (const vlan of [10, 20]) expect(roles(design, vlan)).toBe('alternate alternate designated root');
    for (const vlan of [1, 30]) expect(roles(design, vlan)).toBe('designated root designated alternate');
  });
  test('with no VLAN untagged at one end: what is untagged at the other', () => {
    expect(held(twoCables([10, undefined]))).toEqual({ a1: [10], b1: [10] });
    expect(held(twoCables([undefined, 20]))).toEqual({ a1: [20], b1: [20] });
  });
  test('VLAN 1 is held like any other, by the form of its BPDUs that names it', () => {
    expect(held(twoCables([1, 20]))).toEqual({ a1: [1, 20], b1: [20, 1] });
    expect(held(twoCables([1, 10]))).toEqual({ a1: [1, 10], b1: [10, 1] });
    expect(held(twoCables([1, undefined]))).toEqual({ a1: [1], b1: [1] });
    for (const vlan of [1, 10]) expect(roles(twoCables([1, 10]), vlan)).toBe('alternate alternate designated root');
  });
  test('an access port of VLAN 1 speaks plainly alone: the other end does not detect it, and takes it in', () => {
    const design = twoCables([1, 10], ['1', 'all']);
    expect(held(design)).toEqual({ a1: [1] });
    expect(roles(design, 1)).toBe('alternate root designated alternate');
  });
  test('an end holds what it hears of, in VLANs that it carries', () => {
    expect(held(twoCables([10, 20], ['10', '20']))).toEqual({ a1: [10], b1: [20] });
    expect(held(twoCables([10, undefined], ['10,30', '20,30']))).toEqual({});
    expect(held(twoCables([10, 20], ['10,30', 'all']))).toEqual({ a1: [10], b1: [20, 10] });
  });
  test('ends that agree, one tree for all, and instances hold nothing', () => {
    expect(held(twoCables([10, 10]))).toEqual({});
    for (const mode of ['rstp', 'stp', 'mstp'] as const)
      expect(held(twoCables([10, 20], ['all', 'all'], mode))).toEqual({});
  });
  test('the ledger says why', () => {
    const solved = solveDesign(twoCables([10, 20]));
    const port = solved.topology.portIndex.get('a1')!;
    expect(explainPort(solved, solved.byId.get('vlan-20')!, port).sentence).toBe(
      'Inconsistent in VLANs 10, 20: untagged frames belong to VLAN 10 here, and to VLAN 20 at b 1. BPDUs carry the number of their VLAN, so both switches detect it and block until the ends agree.',
    );
  });
  test('an edit that makes them agree frees them, with what was solved before at hand', () => {
    const before = solveDesign(twoCables([10, 20]));
    const after = solveDesign(twoCables([20, 20]), before);
    const of = after.byId.get('vlan-20')!;
    expect(roleAt(of, after.topology.portIndex.get('b1')!)).toBe('root');
    const again = solveDesign(twoCables([10, 20]), after);
    expect(roleAt(again.byId.get('vlan-20')!, again.topology.portIndex.get('b1')!)).toBe('alternate');
  });
});

test('an access port that leads to a switch without trees per VLAN says what is not modelled', () => {
  const design = twoCables([20, undefined], ['20', 'all']);
  design.switches[1] = { ...design.switches[1]!, protocol: 'rstp' };
  const solved = solveDesign(design);
  const sentence = (id: string) =>
    explainPort(solved, solved.byId.get('vlan-20')!, solved.topology.portIndex.get(id)!).sentence;
  for (const id of ['a1', 'b1'])
    expect(sentence(id)).toMatch(/VLAN 20 is untagged here, .* which the solver does not cover: rehearse it\.$/);
  for (const id of ['a2', 'b2']) expect(sentence(id)).not.toContain('untagged');
});

test('where both ends carry a VLAN, both hold it or neither; what is held carries nothing anywhere', () => {
  const natives = fc.infiniteStream(fc.constantFrom(undefined, 10, 10, 20));
  fc.assert(
    fc.property(networks, natives, (network, choice) => {
      const ports = network.ports.map((p) => {
        const native = choice.next().value;
        return native !== undefined && vlanMembership(p.vlans ?? 'all')[native] ? { ...p, native } : p;
      });
      const solved = solveDesign({ ...network, mode: 'per-vlan-rstp', ports });
      const { topology } = solved;
      for (const [port, vlans] of heldPorts(topology)) {
        const other = peersOf(topology, port)[0]!;
        const carried = vlanMembership(topology.ports[other]!.element.vlans ?? 'all');
        for (const vlan of vlans) {
          if (carried[vlan]) expect(heldPorts(topology).get(other)).toContain(vlan);
          const of = solved.byId.get(`vlan-${vlan}`)!;
          expect(roleAt(of, port)).toBe('alternate');
          expect([of.outcome.rootPort.includes(port), of.outcome.designatedPort.includes(port)]).toEqual([
            false,
            false,
          ]);
        }
      }
    }),
    { numRuns: 300 },
  );
});
