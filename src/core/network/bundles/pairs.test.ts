import { asCabled, asMeant, asPair } from '../../../demo/brackwater';
import { applyEdits, bundleLinks, makePair, setField } from '../../design';
import type { Design, Edit } from '../../design';
import { explainPort, roleAt, solveDesign } from '../../trees';
import { findPath } from '../../analysis';
import { advance, startRehearsal } from '../../simulation';
import { differences } from '../../../../tests/support/differences';
import { notesAt } from '../setting-notes';
import { pairReport } from './pair-report';
import { pairState } from './pairs';
import { verdictOf } from './verdict';

const changed = (design: Design, ...edits: Edit[]): Design => {
  const applied = applyEdits(design, edits);
  if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
  return applied.design;
};
const refusal = (design: Design, ...edits: Edit[]): string => {
  const applied = applyEdits(design, edits);
  return applied.ok ? '' : applied.faults[0]!.sentence;
};
const cut = (...ids: string[]): Edit[] => ids.map((id) => setField('link', id, 'down', true));
const PEER = ['core-east:1--core-west:1', 'core-east:2--core-west:2'];
const KEEPALIVE = 'core-east:5--core-west:5';
const role = (design: Design, port: string) => {
  const solved = solveDesign(design);
  return roleAt(solved.trees[0]!, solved.topology.portIndex.get(port)!);
};
const states = (design: Design, bundle: string) => verdictOf(design, bundle)!.members.map((m) => m.state);

describe('a pair that acts as one bridge', () => {
  test('is one bridge: the bundle of a third switch on both is one port, and nothing of the pair is cut', () => {
    const design = asPair();
    const solved = solveDesign(design);
    const { topology } = solved;
    expect(verdictOf(design, 'quay-a:lag110')!.outcome).toBe('forms');
    expect(states(design, 'core-east:lag110')).toEqual(['active']);
    expect(states(design, 'core-west:lag110')).toEqual(['active']);
    expect(topology.portIndex.get('core-west:lag110')).toBe(topology.portIndex.get('core-east:lag110'));
    for (const of of solved.trees) {
      expect(roleAt(of, topology.portIndex.get('quay-a:lag110')!)).toBe('root');
      expect(of.outcome.root[topology.bridgeIndex.get('quay-b')!]).toBe(topology.bridgeIndex.get('core-west'));
    }
    const peer = topology.portIndex.get('core-east:1')!;
    expect(explainPort(solved, solved.trees[0]!, peer).sentence).toMatch(/^Peer link of a multi-chassis pair/);
  });
  test('passes frames between hosts on its two switches without a hop', () => {
    const design = changed(asPair(), setField('port', 'core-west:20', 'vlans', '110,130'));
    const solved = solveDesign(design);
    const path = findPath(solved, solved.byId.get('vlan-130')!, { host: 'recorder' }, { switch: 'core-east' }, 130);
    expect(path.ok && path.path.hops.length).toBe(1);
  });
  test('goes on when one of its switches is off, and nothing but its own ports is lost', () => {
    const design = changed(asPair(), setField('switch', 'core-east', 'off', true));
    expect(pairState(design, design.pairs[0]!)).toBe('alone');
    expect(states(design, 'quay-a:lag110')).toEqual(['down', 'active']);
    expect(role(design, 'quay-a:lag110')).toBe('root');
  });
  test('takes the shared bundles of the second down when the peer link is lost and the keepalive is not', () => {
    const design = changed(asPair(), ...cut(...PEER));
    expect(pairState(design, design.pairs[0]!)).toBe('primary-only');
    expect(states(design, 'quay-a:lag110')).toEqual(['active', 'down']);
    expect(pairReport(design, design.pairs[0]!).sentence).toMatch(/core-west has shut down its shared bundles/);
  });
  test.each(['core-east', 'core-west'])('gives edge ports what their own switch gives them: %s', (guarding) => {
    const design = changed(
      asPair(),
      setField('switch', guarding, 'edgeGuard', true),
      setField('port', 'core-west:5', 'edge', true),
      ...['core-east:5', 'core-west:5'].map((id) => setField('port', id, 'vlans', '110')),
    );
    const r = startRehearsal(design, { id: 's', name: 's', until: 20, events: [], probes: [] });
    advance(r, 20_000_000);
    expect(differences(design, r)).toEqual([]);
    expect(role(design, 'core-west:5') === 'disabled').toBe(guarding === 'core-west');
  });
  test('splits when both are lost', () => {
    const design = changed(asPair(), ...cut(...PEER, KEEPALIVE));
    expect(pairState(design, design.pairs[0]!)).toBe('split');
    expect(verdictOf(design, 'quay-a:lag110')!.members.some((m) => m.miscabled)).toBe(true);
  });
});

describe('the report on a pair', () => {
  const wrong = (design: Design) =>
    pairReport(design, design.pairs[0]!)
      .checks.filter((c) => !c.ok)
      .map((c) => c.what);
  test('finds nothing where both are alike', () => expect(wrong(asPair())).toEqual([]));
  test('regions are compared by what makes them one: name, revision and map, whatever they are called here', () => {
    const region = { id: 'one', name: 'harbour', revision: 1, map: { 1: '110' } };
    const design = asPair();
    const [first, second] = design.pairs[0]!.switches;
    const at = (map: Record<string, string>): Design => ({
      ...design,
      regions: [region, { ...region, id: 'two', map }],
      switches: design.switches.map((s) =>
        s.id === second ? { ...s, region: 'two' } : s.id === first ? { ...s, region: 'one' } : s,
      ),
    });
    expect(wrong(at({ 1: '110' }))).toEqual([]);
    expect(wrong(at({ 1: '120' }))).toEqual(['MST region']);
  });
  test('names what differs on the two switches and on the two halves of a bundle', () => {
    const design = changed(
      asPair(),
      setField('switch', 'core-west', 'lacpPriority', 100),
      setField('bundle', 'core-west:lag110', 'vlans', '110'),
      setField('bundle', 'core-west:lag111', 'timeout', 'short'),
    );
    expect(wrong(design)).toEqual(['LACP system priority', 'bundle 1, VLANs', 'bundle 2, timeout']);
  });
  test('tells of a single peer cable, of a keepalive that is none, and of VLANs that do not pass', () => {
    const design = changed(
      asPair(),
      setField('pair', 'pair', 'keepalive', null),
      setField('pair', 'pair', 'peer', [PEER[0]!]),
      setField('port', 'core-east:1', 'vlans', '110'),
    );
    expect(wrong(design).slice(0, 3)).toEqual(['peer link', 'keepalive', 'VLANs over the peer link']);
    expect(pairReport(design, design.pairs[0]!).checks[2]!.first).toBe('without 120, 130, 140, 150, 160, 199');
  });
  test('tells of a bundle that one of them alone has', () => {
    const design = changed(asPair(), setField('bundle', 'core-west:lag110', 'shared', null));
    expect(wrong(design)).toEqual(['bundle 1']);
  });
});

describe('making a pair', () => {
  let n = 0;
  const newId = (prefix: string) => `${prefix}-${++n}`;
  test('takes the cables between the two, and ends the bundle of a third on both', () => {
    const made = makePair(asMeant(), 'core-east', 'core-west', newId);
    const paired = changed(asMeant(), ...(made.ok ? made.edits : []));
    expect(paired.pairs[0]).toMatchObject({ domain: 1, switches: ['core-east', 'core-west'], peer: PEER });
    const links = ['core-east:3--quay-a:1', 'core-west:4--quay-a:2'];
    const refused = bundleLinks(asMeant(), links, newId);
    expect(refused.ok || refused.sentence).toBe(
      'The cables join core-east, quay-a, core-west: all members of a bundle join the same two switches, or one switch and a multi-chassis pair.',
    );
    const bundled = bundleLinks(paired, links, newId);
    const design = changed(paired, ...(bundled.ok ? bundled.edits : []));
    expect(design.bundles.slice(-3).map((b) => [b.switch, b.name, b.shared])).toEqual([
      ['quay-a', 'to-core-east-core-west', undefined],
      ['core-east', 'to-quay-a', 1],
      ['core-west', 'to-quay-a', 1],
    ]);
    expect(verdictOf(design, design.bundles.at(-3)!.id)!.outcome).toBe('forms');
  });
  test('is refused without a cable, with itself, twice, and without a pair for a shared number', () => {
    const none = makePair(asMeant(), 'gate', 'crane-yard', newId);
    expect(none.ok || none.sentence).toMatch(/^No cable joins the two switches/);
    const pair = (id: string, domain: number, switches: [string, string]): Edit => ({
      type: 'add',
      kind: 'pair',
      value: { id, domain, switches, peer: [] },
    });
    expect(refusal(asPair(), pair('p2', 11, ['core-east', 'gate']))).toBe(
      "Switch 'core-east' is in two pairs: a switch is in one pair only.",
    );
    expect(refusal(asPair(), pair('p2', 10, ['gate', 'crane-yard']))).toMatch(/^Domain 10 is used by two pairs/);
    expect(refusal(asCabled(), pair('p', 1, ['gate', 'gate']))).toMatch(/cannot be a pair with itself/);
    expect(refusal(asCabled(), pair('p', 1001, ['gate', 'quay-a']))).toBe(
      'Domain 1001 is not legal: a whole number from 1 to 1000.',
    );
    expect(refusal(asCabled(), setField('bundle', 'core-east:lag101', 'shared', 3))).toMatch(
      /its switch is in no pair/,
    );
  });
});

test('a keepalive that carries VLANs of the shared bundles is a link of their trees, and said to be', () => {
  const design = asPair();
  const [port] = ['core-east:5'];
  expect(
    notesAt(
      design,
      design.ports.find((p) => p.id === port)!,
    ),
  ).toEqual([]);
  const trunk = changed(
    design,
    ...['core-east:5', 'core-west:5'].map((id) => setField('port', id, 'vlans', '110,120')),
  );
  expect(
    notesAt(
      trunk,
      trunk.ports.find((p) => p.id === port)!,
    )[0],
  ).toMatch(/keepalive of a pair.*VLAN 110, 120/);
  const check = pairReport(trunk, trunk.pairs[0]!).checks.find((c) => c.what === 'VLANs over the keepalive');
  expect(check).toMatchObject({ first: '110,120', ok: false });
  expect(pairReport(design, design.pairs[0]!).checks.some((c) => c.what === 'VLANs over the keepalive')).toBe(false);
});

test('a split pair says what its partners make of it, as the bundles do', () => {
  const split = changed(asPair(), ...cut(...PEER, KEEPALIVE));
  const report = pairReport(split, split.pairs[0]!);
  expect(report.sentence).toMatch(/Partners see two LACP systems/);
  const rows = report.checks.filter((c) => c.what.endsWith('active members'));
  expect(rows.map((r) => [r.first, r.second, r.ok])).toEqual(rows.map(() => ['1', '0', false]));
  const statics = split.bundles.map((b) => setField('bundle', b.id, 'kind', 'static'));
  const blind = changed(split, ...statics);
  expect(pairReport(blind, blind.pairs[0]!).sentence).toMatch(/no protocol detects it/);
});
