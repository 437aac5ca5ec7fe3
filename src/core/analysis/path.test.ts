import fc from 'fast-check';
import { networks } from '../../../tests/support/networks';
import { asCabled, asMeant } from '../../demo/brackwater';
import { applyEdits, setField } from '../design';
import type { Design, Edit } from '../design';
import { findPath, pathFaultSentence } from './path';
import { solveDesign } from '../trees';

function ask(design: Design, tree: string, from: string, to: string, vlan: number | null = null) {
  const solved = solveDesign(design);
  const of = solved.byId.get(tree)!;
  const place = (id: string) => (design.hosts.some((h) => h.id === id) ? { host: id } : { switch: id });
  const answer = findPath(solved, of, place(from), place(to), vlan);
  const names = answer.ok ? answer.path.hops.map((h) => design.switches[h.bridge]!.name) : [];
  return { solved, answer, names };
}
const changed = (design: Design, ...edits: Edit[]) => {
  const applied = applyEdits(design, edits);
  if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
  return applied.design;
};

test('frames follow the tree from host to host, and the hops add up', () => {
  const { answer, names } = ask(asCabled(), 'vlan-110', 'ticket-desk', 'ferry-server');
  expect(names).toEqual(['ticket-hall', 'quay-a', 'core-east']);
  expect(answer.ok && answer.path.cost).toBe(22000);
  expect(answer.ok && answer.path.hops.map((h) => h.cost)).toEqual([0, 20000, 2000]);
});

test('two neighbours may be far apart in the tree', () => {
  const { names } = ask(asCabled(), 'vlan-199', 'core-east', 'core-west');
  expect(names).toEqual(['core-east', 'quay-a', 'core-west']);
});

test('a place that is off, unplugged or outside the tree is named', () => {
  const off = ask(changed(asCabled(), setField('switch', 'gate', 'off', true)), 'vlan-110', 'gate', 'core-east');
  expect(off.answer.ok ? '' : pathFaultSentence(off.solved, off.answer.fault)).toMatch(/gate is not in this tree/);
  const host = ask(asCabled(), 'vlan-110', 'crane-plc', 'core-east');
  expect(host.answer.ok ? '' : pathFaultSentence(host.solved, host.answer.fault)).toMatch(
    /crane-plc has no working port in this tree/,
  );
  const same = ask(asCabled(), 'vlan-110', 'gate', 'gate');
  expect(same.answer).toEqual({ ok: false, fault: { kind: 'same-place' } });
});

test('in a mixed network the frames of a VLAN follow another tree on switches that have none for it', () => {
  const design = changed(asMeant(), setField('switch', 'gate', 'protocol', 'rstp'));
  const { answer } = ask(design, 'vlan-110', 'gate', 'core-east');
  expect(answer.ok && answer.path.hops.length).toBeGreaterThan(1);
});

test('parts that do not reach each other have no path', () => {
  const cut = changed(asCabled(), setField('link', 'quay-b:8--cold-store:1', 'down', true));
  const { answer, solved } = ask(cut, 'vlan-110', 'cold-store', 'core-east');
  expect(answer.ok ? '' : pathFaultSentence(solved, answer.fault)).toMatch(/in different partitions of the tree/);
});

test('one tree for all stays open where a VLAN was pruned, and its frames are lost there', () => {
  const single = changed(
    asMeant(),
    { type: 'settings', field: 'mode', value: 'rstp' },
    setField('port', 'gate:1', 'vlans', '110'),
    setField('port', 'gate:2', 'vlans', '110'),
  );
  const lost = ask(single, 'rstp', 'gate', 'core-east', 130);
  expect(lost.answer.ok && lost.answer.path.lostAt && pathFaultSentence(lost.solved, lost.answer.path.lostAt)).toMatch(
    /Frames of VLAN 130 are lost at port [12] of gate/,
  );
  const kept = ask(single, 'rstp', 'gate', 'core-east', 110);
  expect(kept.answer.ok && kept.answer.path.lostAt).toBeNull();
});

test('there is a path exactly between switches under one root, it repeats no switch, and costs the same both ways', () => {
  fc.assert(
    fc.property(networks, fc.nat(), fc.nat(), (design, i, j) => {
      const solved = solveDesign(design);
      const of = solved.trees[0]!;
      const [a, b] = [i % design.switches.length, j % design.switches.length];
      if (a === b) return;
      const [there, back] = [
        findPath(solved, of, { switch: `s${a}` }, { switch: `s${b}` }, null),
        findPath(solved, of, { switch: `s${b}` }, { switch: `s${a}` }, null),
      ];
      const joined = of.outcome.root[a]! >= 0 && of.outcome.root[a] === of.outcome.root[b];
      expect(there.ok).toBe(joined);
      if (!there.ok || !back.ok) return;
      expect(new Set(there.path.hops.map((h) => h.bridge)).size).toBe(there.path.hops.length);
      expect(there.path.cost).toBe(back.path.cost);
      if (of.outcome.root[a] === b) expect(there.path.cost).toBe(of.outcome.rootPathCost[a]);
    }),
    { numRuns: 800 },
  );
});
