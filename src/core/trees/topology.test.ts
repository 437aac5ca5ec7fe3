import { asCabled, asMeant } from '../../demo/brackwater';
import { campus } from '../../demo/campus';
import { applyEdits, setField } from '../design';
import type { Design, Edit } from '../design';
import { classesOf } from './problem';
import { blockedPorts, roleAt, solveDesign } from './state';
import { cabledTopology } from './topology';
import { treesOf } from '../network';

const changed = (design: Design, ...edits: Edit[]) => {
  const applied = applyEdits(design, edits);
  if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
  return applied.design;
};
const lan = (design: Design, port: string) => {
  const topology = cabledTopology(design);
  return topology.portLan[topology.portIndex.get(port)!]!;
};
const role = (design: Design, tree: string, port: string) => {
  const solved = solveDesign(design);
  return roleAt(solved.byId.get(tree)!, solved.topology.portIndex.get(port)!);
};

describe('LANs', () => {
  test('the two ends of a working link share one, a host has its own', () => {
    expect(lan(asCabled(), 'gate:1')).toBe(lan(asCabled(), 'quay-a:4'));
    expect(lan(asCabled(), 'gate:10')).toBeGreaterThanOrEqual(0);
    expect(lan(asCabled(), 'gate:10')).not.toBe(lan(asCabled(), 'gate:1'));
  });
  test.each<[string, Edit]>([
    ['the link is cut', setField('link', 'quay-a:4--gate:1', 'down', true)],
    ['the near port is down', setField('port', 'gate:1', 'down', true)],
    ['the far port is down', setField('port', 'quay-a:4', 'down', true)],
    ['the near switch is off', setField('switch', 'gate', 'off', true)],
    ['the far switch is off', setField('switch', 'quay-a', 'off', true)],
  ])('there is none when %s', (_, edit) => expect(lan(changed(asCabled(), edit), 'gate:1')).toBe(-1));
  test('members of a bundle that formed are its one port, the others stand alone', () => {
    const { portIndex, ports } = cabledTopology(asCabled());
    expect(portIndex.get('quay-b:8')).toBe(portIndex.get('quay-b:lag102'));
    expect(ports[portIndex.get('quay-b:9')!]!.element.id).toBe('quay-b:9');
    expect(cabledTopology(asMeant()).portIndex.get('quay-b:9')).toBe(
      cabledTopology(asMeant()).portIndex.get('quay-b:8'),
    );
  });
});

describe('costs in force', () => {
  const cost = (design: Design, port: string) => {
    const topology = cabledTopology(design);
    return topology.portCost[topology.portIndex.get(port)!];
  };
  test('a link runs at the lower of its speeds', () => {
    expect(cost(changed(asCabled(), setField('port', 'quay-a:4', 'speed', 100)), 'gate:1')).toBe(200_000);
  });
  test('each switch counts on its own scale', () => {
    const mixed = changed(asCabled(), setField('switch', 'gate', 'costScale', 'short'));
    expect([cost(mixed, 'gate:1'), cost(mixed, 'quay-a:4')]).toEqual([4, 20_000]);
  });
  test('only the cost of the receiving end counts', () => {
    const far = changed(asCabled(), setField('port', 'quay-a:4', 'vlanCost.110', 200_000_000));
    expect(role(far, 'vlan-110', 'gate:1')).toBe('root');
    const near = changed(asCabled(), setField('port', 'gate:1', 'vlanCost.110', 20_001));
    expect(role(near, 'vlan-110', 'gate:1')).toBe('alternate');
  });
});

describe('what is taken over after an edit', () => {
  test('a cost or a priority leaves the cabling as it is', () => {
    const design = asCabled();
    const before = cabledTopology(design);
    for (const edit of [setField('port', 'gate:1', 'cost', 7), setField('switch', 'gate', 'priority', 0)]) {
      const after = cabledTopology(changed(design, edit), before);
      expect(after.portLan).toBe(before.portLan);
      expect(after.portCost[after.portIndex.get('gate:1')!]).toBe(
        edit.type === 'set' && edit.kind === 'port' ? 7 : 20_000,
      );
    }
  });
  test('a speed, a VLAN list or a cut link does not', () => {
    const design = asCabled();
    const before = cabledTopology(design);
    for (const edit of [
      setField('port', 'gate:1', 'speed', 100),
      setField('port', 'gate:1', 'vlans', '110'),
      setField('link', 'quay-a:4--gate:1', 'down', true),
      { type: 'settings' as const, field: 'bundleCost' as const, value: 'configured' },
    ])
      expect(cabledTopology(changed(design, edit), before).portLan).not.toBe(before.portLan);
  });
  test('many costs at once are worked in as if solved afresh', () => {
    const design = campus({ switches: 60, vlans: 12, outcomes: 4 });
    let solved = solveDesign(design);
    let now = design;
    for (let round = 0; round < 25; round++) {
      const ports = now.ports.filter((_, i) => (i * 31 + round * 7) % 97 === 0).slice(0, 6);
      now = changed(
        now,
        ...ports.map((p, i) => setField('port', p.id, 'cost', [1, 500, 20_000, 90_000][(i + round) % 4])),
      );
      solved = solveDesign(now, solved);
      const fresh = solveDesign(structuredClone(now));
      fresh.trees.forEach((t, i) => {
        expect(solved.trees[i]!.outcome.role).toEqual(t.outcome.role);
        expect(solved.trees[i]!.outcome.rootPathCost).toEqual(t.outcome.rootPathCost);
        expect(solved.trees[i]!.outcome.rootPort).toEqual(t.outcome.rootPort);
      });
    }
  });
});

describe('trees and classes', () => {
  test('one tree a VLAN in ascending order, or one for all', () => {
    expect(treesOf(asCabled()).map((t) => t.id)).toEqual([
      'vlan-110',
      'vlan-120',
      'vlan-130',
      'vlan-140',
      'vlan-150',
      'vlan-160',
      'vlan-199',
    ]);
    const one = changed(asCabled(), { type: 'settings', field: 'mode', value: 'stp' });
    expect(treesOf(one)).toMatchObject([{ id: 'stp', vlan: null, vlans: [110, 120, 130, 140, 150, 160, 199] }]);
  });
  test('a VLAN with a list or a setting of its own is a class of its own', () => {
    const plain = campus({ switches: 12, vlans: 6, outcomes: 1 });
    for (const s of plain.switches) delete s.vlanPriority;
    expect(classesOf(cabledTopology(plain))).toHaveLength(1);
    const port = plain.ports[5]!.id;
    for (const edit of [
      setField('port', port, 'vlanCost.12', 5),
      setField('port', port, 'vlanPriority.12', 0),
      setField('switch', plain.switches[3]!.id, 'vlanPriority.12', 0),
      setField('port', port, 'vlans', '10-11,13-15'),
    ])
      expect(
        classesOf(cabledTopology(changed(plain, edit)))
          .map((c) => c.trees.length)
          .sort(),
      ).toEqual([1, 5]);
  });
  test('a port without the VLAN is not in the tree; one tree for all runs on every link whatever it carries', () => {
    expect(role(asCabled(), 'vlan-130', 'gate:2')).toBe('none');
    expect(role(asCabled(), 'vlan-130', 'quay-b:4')).toBe('designated');
    const one = changed(asCabled(), { type: 'settings', field: 'mode', value: 'rstp' });
    expect(role(one, 'rstp', 'gate:2')).not.toBe('none');
  });
  test('settings of single VLANs do not touch the common tree of all', () => {
    const one = changed(asCabled(), { type: 'settings', field: 'mode', value: 'rstp' });
    const solved = solveDesign(one);
    const [root] = solved.trees[0]!.outcome.root;
    expect(one.switches[root!]!.name).toBe('workshop');
    expect(blockedPorts(solved.trees[0]!).length).toBeGreaterThan(0);
  });
});
