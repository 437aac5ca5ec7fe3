import { asCabled } from '../../../demo/brackwater';
import { applyEdits, setField } from '../../design';
import type { Bundle, Design, Edit } from '../../design';
import { sentenceFaults } from '../../messages/forbidden';
import { explainPort, roleAt, solveDesign } from '../../trees';
import { verdictOf } from './verdict';

const NEAR = 'core-east:lag101';
const FAR = 'core-west:lag101';
const set = (id: string, field: keyof Bundle & string, value: unknown): Edit => setField('bundle', id, field, value);
function changed(...edits: Edit[]): Design {
  const applied = applyEdits(asCabled(), edits);
  if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
  return applied.design;
}
const refusal = (...edits: Edit[]) => {
  const applied = applyEdits(asCabled(), edits);
  return applied.ok ? null : applied.faults[0]!.sentence;
};
const judged = (design: Design, id = NEAR) => {
  const v = verdictOf(design, id)!;
  return [v.outcome, ...v.members.map((m) => (m.miscabled ? `miscabled ${m.state}` : m.state))];
};

describe('every combination of kinds', () => {
  const kinds = (a: Partial<Bundle>, b: Partial<Bundle>) =>
    changed(
      ...Object.entries(a).map(([f, v]) => set(NEAR, f as 'kind', v)),
      ...Object.entries(b).map(([f, v]) => set(FAR, f as 'kind', v)),
    );
  const cases: [Partial<Bundle>, Partial<Bundle>, string[], string[]][] = [
    [{}, {}, ['forms', 'active', 'active'], ['forms', 'active', 'active']],
    [{}, { activity: 'passive' }, ['forms', 'active', 'active'], ['forms', 'active', 'active']],
    [
      { activity: 'passive' },
      { activity: 'passive' },
      ['never', 'individual', 'individual'],
      ['never', 'individual', 'individual'],
    ],
    [
      { activity: 'passive', individual: false },
      { activity: 'passive' },
      ['never', 'suspended', 'suspended'],
      ['never', 'individual', 'individual'],
    ],
    [{ kind: 'static' }, { kind: 'static' }, ['forms', 'active', 'active'], ['forms', 'active', 'active']],
    [{ kind: 'static' }, {}, ['one-sided', 'active', 'active'], ['one-sided', 'individual', 'individual']],
    [{ kind: 'own' }, { kind: 'own' }, ['forms', 'active', 'active'], ['forms', 'active', 'active']],
    [
      { kind: 'own', activity: 'passive' },
      { kind: 'own', activity: 'passive' },
      ['never', 'individual', 'individual'],
      ['never', 'individual', 'individual'],
    ],
    [{ kind: 'own' }, {}, ['unanswered', 'individual', 'individual'], ['unanswered', 'individual', 'individual']],
    [{ kind: 'own' }, { kind: 'static' }, ['one-sided', 'individual', 'individual'], ['one-sided', 'active', 'active']],
  ];
  test.each(cases)('%j and %j', (a, b, near, far) => {
    const design = kinds(a, b);
    expect(judged(design, NEAR)).toEqual(near);
    expect(judged(design, FAR)).toEqual(far);
  });
});

test('a bundle with one cable comes up and names the port that nothing is plugged into', () => {
  const v = verdictOf(asCabled(), 'quay-b:lag102')!;
  expect(v.outcome).toBe('forms');
  expect(v.sentence).toBe('The ends agree. 1 of 2 members is active: a single cable, without redundancy.');
  expect(v.members.map((m) => [m.state, m.sentence])).toEqual([
    ['active', 'Active: it carries frames of the bundle.'],
    ['down', 'Down: nothing is plugged in.'],
  ]);
});

test('without a bundle at the far end there is no partner, and a static end forwards without one', () => {
  const without = changed({ type: 'remove', kind: 'bundle', id: FAR });
  expect(judged(without)).toEqual(['unanswered', 'individual', 'individual']);
  const applied = applyEdits(without, [set(NEAR, 'kind', 'static')]);
  if (!applied.ok) throw new Error('unfit');
  expect(judged(applied.design)).toEqual(['one-sided', 'active', 'active']);
  expect(verdictOf(applied.design, NEAR)!.sentence).toMatch(/spanning tree does not detect it/);
});

test('a static bundle with a minimum at one end: the other forwards to an end that is down, and says so', () => {
  const minimum = [set(NEAR, 'kind', 'static'), set(FAR, 'kind', 'static'), set(FAR, 'minActive', 2)];
  expect(judged(changed(...minimum))).toEqual(['forms', 'active', 'active']);
  const lost = changed(...minimum, setField('link', 'core-east:2--core-west:2', 'down', true));
  expect(judged(lost, FAR)).toEqual(['too-few', 'standby', 'down']);
  expect(judged(lost, NEAR)).toEqual(['one-sided', 'active', 'down']);
  expect(verdictOf(lost, NEAR)!.sentence).toBe(
    'core-west is down: 1 member is up, and its minimum is 2. This end is static, does not detect it, and forwards: its frames are lost.',
  );
});

test('a member that leads to another switch is found and named', () => {
  const design = changed(set(NEAR, 'members', ['core-east:1', 'core-east:2', 'core-east:3']));
  expect(judged(design)).toEqual(['forms', 'active', 'active', 'miscabled individual']);
  expect(verdictOf(design, NEAR)!.members[2]!.sentence).toMatch(
    /^Miscabled: it leads to a single port, not to the far end/,
  );
});

test('a maximum makes members wait, a minimum takes the bundle out, and the trees follow', () => {
  const one = changed(set(NEAR, 'maxActive', 1));
  expect(judged(one)).toEqual(['forms', 'active', 'standby']);
  const solved = solveDesign(one);
  const of = solved.trees[0]!;
  const waiting = solved.topology.portIndex.get('core-east:2')!;
  expect(roleAt(of, waiting)).toBe('disabled');
  expect(explainPort(solved, of, waiting).sentence).toMatch(/^Waits for bundle to-core-west\. Standby/);
  // 10 Gb/s instead of 20: the cost of the bundle doubles.
  const bundle = solved.topology.portIndex.get(NEAR)!;
  expect([solveDesign(asCabled()).topology.portCost[bundle], solved.topology.portCost[bundle]]).toEqual([1000, 2000]);
  const two = changed(set(NEAR, 'minActive', 2), setField('port', 'core-west:2', 'down', true));
  expect(judged(two)).toEqual(['too-few', 'standby', 'down']);
  expect(roleAt(solveDesign(two).trees[0]!, solveDesign(two).topology.portIndex.get('core-east:1')!)).toBe('disabled');
});

test('where one end needs two and the other lets one be active, neither forwards', () => {
  const design = changed(set(NEAR, 'minActive', 2), set(FAR, 'maxActive', 1));
  expect([judged(design, NEAR), judged(design, FAR)]).toEqual([
    ['too-few', 'standby', 'standby'],
    ['too-few', 'standby', 'standby'],
  ]);
  expect(verdictOf(design, FAR)!.sentence).toBe('1 of 2 members is ready, and the minimum is 2: the bundle is down.');
});

test('cabled crosswise, each end holds with the one to which most of its members lead, and both ends say so', () => {
  const bundle = (name: string, members: string[]): Edit => ({
    type: 'add',
    kind: 'bundle',
    value: { id: name, switch: members[0]!.split(':')[0]!, name, number: 130, members, kind: 'lacp' },
  });
  // Two cables of quay-a lead to one neighbour, and a third one to another, which has no second.
  const cable = (a: string, b: string, n: number): Edit[] =>
    [
      {
        type: 'add',
        kind: 'port',
        value: { id: a, switch: a.split(':')[0]!, name: a.split(':')[1]!, number: 40 + n, speed: 1000 },
      },
      {
        type: 'add',
        kind: 'port',
        value: { id: b, switch: b.split(':')[0]!, name: b.split(':')[1]!, number: 40 + n, speed: 1000 },
      },
      { type: 'add', kind: 'link', value: { id: `x${n}`, a: { port: a }, b: { port: b } } },
    ] as Edit[];
  const crosswise = changed(
    ...cable('quay-a:41', 'quay-b:41', 1),
    ...cable('quay-a:42', 'quay-b:42', 2),
    ...cable('quay-a:43', 'gate:43', 3),
    bundle('x-a', ['quay-a:41', 'quay-a:42', 'quay-a:43']),
    bundle('x-b', ['quay-b:41', 'quay-b:42']),
    bundle('x-c', ['gate:43']),
  );
  expect(['x-a', 'x-b', 'x-c'].map((id) => judged(crosswise, id))).toEqual([
    ['forms', 'active', 'active', 'miscabled suspended'],
    ['forms', 'active', 'active'],
    ['unanswered', 'standby'],
  ]);
  expect(verdictOf(crosswise, 'x-c')!.sentence).toBe(
    'Most members lead to quay-a, which holds with bundle x-b of quay-b, to which more of its own members lead: none is active.',
  );
});

test('a server with two cards bundles as it is set', () => {
  const design = asCabled();
  design.ports.push({
    id: 'core-east:21',
    switch: 'core-east',
    name: '21',
    number: 21,
    speed: 10000,
    vlans: '110',
    native: 110,
  });
  design.links.push({ id: 'second', a: { port: 'core-east:21' }, b: { host: 'ferry-server', card: '2' } });
  design.bundles.push({
    id: 'to-server',
    switch: 'core-east',
    name: 'to-server',
    number: 120,
    members: ['core-east:20', 'core-east:21'],
    kind: 'lacp',
    vlans: '110',
  });
  expect(judged(design, 'to-server')).toEqual(['unanswered', 'individual', 'individual']);
  const bonded: Design = {
    ...design,
    hosts: design.hosts.map((h) => (h.id === 'ferry-server' ? { ...h, bond: 'lacp-active' } : h)),
  };
  expect(judged(bonded, 'to-server')).toEqual(['forms', 'active', 'active']);
  const solved = solveDesign(bonded);
  expect(roleAt(solved.trees[0]!, solved.topology.portIndex.get('to-server')!)).toBe('designated');
});

describe('refused', () => {
  test('a maximum of nine, a minimum above the members or the maximum, a system priority of 70000', () => {
    expect(refusal(set(NEAR, 'maxActive', 9))).toBe(
      'The maximum of active members 9 is not legal: a whole number from 1 to 8; members beyond the maximum wait as standby.',
    );
    expect(refusal(set(NEAR, 'minActive', 3))).toBe(
      "Bundle 'to-core-west' needs 3 active members but has 2: it could never come up. Add members, or lower the minimum.",
    );
    expect(refusal(set(NEAR, 'minActive', 2), set(NEAR, 'maxActive', 1))).toBe(
      "Bundle 'to-core-west' needs 2 active members but lets at most 1 be active: it could never come up.",
    );
    expect(refusal(setField('switch', 'core-east', 'lacpPriority', 70000))).toBe(
      'System priority 70000 is not legal: LACP priorities are whole numbers from 0 to 65535.',
    );
  });
});

test('every combination of kinds has a sentence of its own protocol, at both ends', () => {
  const kinds = ['lacp', 'static', 'own'] as const;
  const sides = ['active', 'passive'] as const;
  for (const a of kinds)
    for (const b of kinds)
      for (const x of sides)
        for (const y of sides) {
          const design = changed(
            set(NEAR, 'kind', a),
            set(FAR, 'kind', b),
            set(NEAR, 'activity', x),
            set(FAR, 'activity', y),
          );
          for (const [id, own, other] of [
            [NEAR, a, b],
            [FAR, b, a],
          ] as const) {
            const { sentence } = verdictOf(design, id)!;
            expect([own, other, sentenceFaults(sentence).filter((f) => !f.includes('capital'))]).toEqual([
              own,
              other,
              [],
            ]);
            if (own !== 'lacp') expect([own, other, sentence.includes('LACP')]).toEqual([own, other, false]);
          }
        }
});
