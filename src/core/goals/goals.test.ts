import { asCabled, asMeant } from '../../demo/brackwater';
import { designFrom } from '../../../tests/support/networks';
import { network, wishes } from '../../../tests/support/wishes';
import { solveNaively } from '../../../tests/support/naive';
import { applyEdits, removeAll } from '../design';
import type { Design, Goal } from '../design';
import { solveDesign } from '../trees';
import { checkGoals } from './check';
import { goalSentence } from './words';
import { proposeSettings } from './propose';

const withGoals = (design: Design, ...goals: Goal[]): Design => ({ ...design, goals });
const states = (design: Design) => checkGoals(solveDesign(design)).map((c) => c.state);
const applied = (design: Design, edits: Parameters<typeof applyEdits>[1]): Design => {
  const result = applyEdits(design, edits);
  if (!result.ok) throw new Error(result.faults[0]!.sentence);
  return result.design;
};

describe('goals are met or broken, with the reason', () => {
  const check = (goal: Goal, design = asCabled()) => {
    const [found] = checkGoals(solveDesign(withGoals(design, goal)));
    return [found!.state, found!.reason];
  };
  const base = { id: 'g' };
  test('a root', () => {
    expect(check({ ...base, type: 'root', vlans: '110', switch: 'core-east' })).toEqual(['met', '']);
    expect(check({ ...base, type: 'root', vlans: '110,199', switch: 'core-east', next: 'core-west' })).toEqual([
      'broken',
      'Workshop is root in VLAN 199.',
    ]);
    expect(check({ ...base, type: 'root', vlans: '110', switch: 'core-east', next: 'gate' })).toEqual([
      'broken',
      'Core-west comes next in VLAN 110.',
    ]);
  });
  test('a cut', () => {
    expect(check({ ...base, type: 'cut', vlans: '110', port: 'gate:2' })).toEqual(['met', '']);
    expect(check({ ...base, type: 'cut', vlans: '110', port: 'gate:1' })).toEqual([
      'broken',
      'The port is root in VLAN 110.',
    ]);
  });
  test('a link that carries, and carries nothing else', () => {
    expect(check({ ...base, type: 'carries', vlans: '110', port: 'gate:1' })).toEqual(['met', '']);
    expect(check({ ...base, type: 'carries', vlans: '110', port: 'gate:2' })).toEqual([
      'broken',
      'The link is blocked at gate in VLAN 110.',
    ]);
    expect(check({ ...base, type: 'carries', vlans: '110', port: 'gate:1', only: true })).toEqual([
      'broken',
      'The link carries it too in VLANs 120, 130, 199.',
    ]);
  });
  test('a path', () => {
    const path = {
      ...base,
      type: 'path' as const,
      vlans: '110',
      from: { switch: 'gate' },
      to: { host: 'ferry-server' },
    };
    expect(check({ ...path, atMost: 2 })).toEqual(['met', '']);
    expect(check({ ...path, atMost: 1 })).toEqual(['broken', 'The path has 2 hops in VLAN 110.']);
    expect(check({ ...path, avoid: 'quay-a' })).toEqual(['broken', 'The path crosses quay-a in VLAN 110.']);
  });
  test('what is held by a silence guard, and what lies too deep', () => {
    const guarded = asCabled();
    const ports = guarded.ports.map((p) => (p.id === 'quay-a:4' ? { ...p, silenceGuard: true } : p));
    const carries: Goal = { ...base, type: 'carries', vlans: '110', port: 'gate:1' };
    expect(check(carries, { ...guarded, ports })).toEqual([
      'broken',
      'The silence guard of quay-a blocks the link in VLAN 110.',
    ]);
    const ids = Array.from({ length: 24 }, (_, i) => `s${i}`);
    const end = (bridge: string, port: number) => ({ bridge, port, cost: 4, priority: 128 });
    const chain = designFrom(
      ids.map((id, i) => ({ id, mac: `00:00:5e:00:53:${i.toString(16).padStart(2, '0')}`, priority: 32768 })),
      ids.slice(1).map((id, i) => ({ ends: [end(ids[i]!, 2), end(id, 1)] })),
      'per-vlan-rstp',
      [10],
    );
    const path: Goal = { ...base, type: 'path', vlans: '10', from: { switch: 's0' }, to: { switch: 's23' } };
    expect(check(path, chain)).toEqual(['broken', 'There is no path: s23 is too deep for the BPDUs of s0 in VLAN 10.']);
  });
  test('load', () => {
    expect(check({ ...base, type: 'load', vlans: 'all', percent: 70 })).toEqual(['met', '']);
    const [state, reason] = check({ ...base, type: 'load', vlans: 'all', percent: 10 });
    expect(state).toBe('broken');
    expect(reason).toMatch(/sends 42 % of its rate, and \d+ more links are over\.$/);
    expect(check({ ...base, type: 'load', vlans: 'all', percent: 70 }, { ...asCabled(), demands: [] })[0]).toBe('void');
  });
  test('about what was removed is kept and void', () => {
    const design = withGoals(
      asCabled(),
      { ...base, type: 'cut', vlans: '110', port: 'gate:2' },
      { id: 'h', type: 'root', vlans: '110', switch: 'gate' },
    );
    const without = applied(design, removeAll(design, [{ kind: 'switch', id: 'gate' }]));
    expect(states(without)).toEqual(['void', 'void']);
    expect(checkGoals(solveDesign(without))[0]!.reason).toBe('Void: the port of this goal is not in the design.');
    expect(goalSentence(without, without.goals[0]!)).toBe('The blocked port of VLAN 110 is a removed port.');
  });
  test('of VLANs that no tree carries is void', () => {
    expect(check({ ...base, type: 'cut', vlans: '7', port: 'gate:2' })).toEqual([
      'void',
      'Void: no tree of the design carries VLAN 7.',
    ]);
  });
  test('holds in the finished variant of the demo and in part in the one as cabled', () => {
    expect(states(asMeant())).toEqual(Array(6).fill('met'));
    expect(states(asCabled())).toEqual(['met', 'met', 'broken', 'met', 'broken', 'met']);
  });
});

describe('proposals', () => {
  test('the faults of the demo take two settings, and nothing else moves', () => {
    const { proposals } = proposeSettings(solveDesign(asCabled()));
    expect(proposals[0]).toMatchObject({ settings: 2, devices: 2, movedBesides: [], breaks: [], leaves: [] });
    expect(states(applied(asCabled(), proposals[0]!.edits))).toEqual(Array(6).fill('met'));
  });

  test('on generated networks of 60 switches goals that some setting meets are met, each proposal proved', () => {
    for (let seed = 1000; seed < 1010; seed++) {
      const design = wishes(seed);
      const solved = solveDesign(design);
      const before = checkGoals(solved);
      const { proposals, contradictions } = proposeSettings(solved);
      if (before.every((c) => c.state === 'met')) {
        expect(proposals).toEqual([]);
        continue;
      }
      expect(contradictions).toEqual([]);
      expect(proposals.length).toBeGreaterThan(0);
      for (const p of proposals) {
        const then = checkGoals(solveDesign(applied(design, p.edits)));
        expect(then.filter((c) => c.state === 'broken').map((c) => c.goal.id)).toEqual([]);
        expect(p.settings).toBe(p.edits.length);
      }
    }
  });

  test('what a proposal says of roots holds for a second, plain solver too', () => {
    for (let seed = 2000; seed < 2006; seed++) {
      const design = network(seed, 20);
      for (const p of design.ports) p.cost = { 100: 200000, 1000: 20000, 10000: 2000 }[p.speed];
      design.goals = [{ id: 'g', type: 'root', vlans: '20', switch: `s${seed % 20}` }];
      const { proposals } = proposeSettings(solveDesign(design));
      const then = proposals[0] ? applied(design, proposals[0].edits) : design;
      const roots = new Set([...solveNaively(then, 20).switches.values()].map((s) => s.root));
      expect([...roots]).toEqual([`s${seed % 20}`]);
    }
  });

  test('goals about load are met by leading a tree another way', () => {
    const design = withGoals(asMeant(), { id: 'g', type: 'load', vlans: 'all', percent: 30 });
    design.demands = [
      { id: 'a', vlan: 110, from: { switch: 'ticket-hall' }, to: { switch: 'core-east' }, load: 250 },
      { id: 'b', vlan: 120, from: { switch: 'ticket-hall' }, to: { switch: 'core-east' }, load: 250 },
    ];
    const { proposals } = proposeSettings(solveDesign(design));
    expect(proposals[0]!.meets.map((g) => g.id)).toEqual(['g']);
    expect(states(applied(design, proposals[0]!.edits))).toEqual(['met']);
  });

  test('goals of an instance are met by settings of that instance alone', () => {
    const design = asMeant();
    design.mode = 'mstp';
    design.regions = [{ id: 'r', name: 'port', revision: 1, map: { '1': '110,120,130', '2': '140,150,160' } }];
    design.goals = [
      { id: 'a', type: 'root', vlans: '110,120,130', switch: 'core-east', next: 'core-west' },
      { id: 'b', type: 'root', vlans: '140,150,160', switch: 'core-west', next: 'core-east' },
      { id: 'c', type: 'cut', vlans: '140', port: 'gate:1' },
    ];
    const { proposals } = proposeSettings(solveDesign(design));
    expect(states(applied(design, proposals[0]!.edits))).toEqual(['met', 'met', 'met']);
    for (const e of proposals[0]!.edits) expect(e.type === 'set' && /^instance/.test(e.field)).toBe(true);
  });
});

describe('goals that stand in each other’s way', () => {
  const contradictionsOf = (...goals: Goal[]) => proposeSettings(solveDesign(withGoals(asMeant(), ...goals)));
  test('two roots of one tree', () => {
    const { contradictions } = contradictionsOf(
      { id: 'a', type: 'root', vlans: '110', switch: 'gate' },
      { id: 'b', type: 'root', vlans: '110-120', switch: 'quay-b' },
    );
    expect(contradictions.map((c) => [c.goals.map((g) => g.id), c.certain])).toEqual([[['a', 'b'], true]]);
    expect(contradictions[0]!.sentence).toBe(
      '“gate is root of VLAN 110” and “quay-b is root of VLANs 110-120” contradict each other in VLAN 110.',
    );
  });
  test('a port that should be cut and carry', () => {
    const { contradictions } = contradictionsOf(
      { id: 'a', type: 'cut', vlans: '110', port: 'gate:1' },
      { id: 'b', type: 'carries', vlans: '110', port: 'gate:1' },
    );
    expect(contradictions[0]!.goals.map((g) => g.id)).toEqual(['a', 'b']);
  });
  test('a cut where nothing is doubled cannot be had by itself', () => {
    const { contradictions, proposals } = contradictionsOf({
      id: 'a',
      type: 'cut',
      vlans: '110',
      port: 'cold-store:lag103',
    });
    expect(proposals).toEqual([]);
    expect(contradictions[0]!.goals.map((g) => g.id)).toEqual(['a']);
    expect(contradictions[0]!.sentence).toMatch(/No setting was found that meets .* even by itself/);
  });
  test('two uplinks that should both be cut can be had one at a time only', () => {
    const { contradictions } = contradictionsOf(
      { id: 'a', type: 'cut', vlans: '110', port: 'gate:1' },
      { id: 'b', type: 'cut', vlans: '110', port: 'gate:2' },
    );
    expect(contradictions[0]!.goals.map((g) => g.id).sort()).toEqual(['a', 'b']);
    expect(contradictions[0]!.sentence).toMatch(/^Each of .* can be met, but no setting was found/);
  });
});
