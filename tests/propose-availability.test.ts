/** Proposals for what is left after any single failure: each that says it meets a goal does, solved and swept from scratch. */
import fc from 'fast-check';
import { addElement, applyEdits, editListWords, emptyDesign } from '@/core/design';
import type { Design, Goal } from '@/core/design';
import { byWorst, checkAvailability, failureOf, propose, sweepBase } from '@/core/review';
import { checkGoals } from '@/core/goals';
import { solveDesign } from '@/core/trees';
import { asCabled } from '@/demo/brackwater';
import { runs } from './support/runs';
import { plainNetworks, vlanNetworks } from './support/vlan-networks';

const ids = () => {
  let n = 0;
  return (prefix: string) => `${prefix}-new-${++n}`;
};
const withGoals = (design: Design, ...goals: Goal[]): Design => ({ ...design, goals });
const proposed = (design: Design) => propose(solveDesign(design), ids());

/** States of all goals, by every single failure from scratch. */
function statesOf(design: Design): Map<string, string> {
  const solved = solveDesign(design);
  const base = sweepBase(solved);
  const failures = base.elements.map((e) => failureOf(base, [e], true)).sort(byWorst);
  return new Map(
    [...checkGoals(solved), ...checkAvailability(base, failures)].map((c) => [c.goal.id, c.state] as const),
  );
}

function applied(design: Design, edits: Parameters<typeof applyEdits>[1]): Design {
  const result = applyEdits(design, edits);
  if (!result.ok) throw new Error(result.faults[0]!.sentence);
  return result.design;
}

/** What a proposal says of goals is so. */
function holds(design: Design, proposal: ReturnType<typeof proposed>['proposals'][number]): void {
  const states = statesOf(applied(design, proposal.edits));
  for (const goal of proposal.meets) expect([goal.id, states.get(goal.id)]).toEqual([goal.id, 'met']);
  for (const { goal } of [...proposal.breaks, ...proposal.leaves])
    expect([goal.id, states.get(goal.id)]).toEqual([goal.id, 'broken']);
}

const ALL: Goal = { id: 'all', type: 'stays-connected', vlans: 'all', among: 'switches' };

test('switches of random networks stay connected with what is proposed, as it says', () => {
  let [whole, asked] = [0, 0];
  fc.assert(
    fc.property(fc.oneof(vlanNetworks, plainNetworks(5)), (network) => {
      const design = withGoals(network, ALL);
      if (statesOf(design).get('all') !== 'broken') return;
      asked++;
      const { proposals, contradictions } = proposed(design);
      for (const proposal of proposals) holds(design, proposal);
      const found = proposals.some((p) => p.leaves.length + p.breaks.length === 0);
      if (found) whole++;
      else expect(contradictions.length).toBeGreaterThan(0);
    }),
    runs(25),
  );
  expect(whole / asked).toBeGreaterThan(0.8);
});

test('two places of random networks stay connected with what is proposed, as it says', () => {
  fc.assert(
    fc.property(fc.oneof(vlanNetworks, plainNetworks(5)), fc.nat(), fc.nat(), (network, x, y) => {
      const [a, b] = [network.switches[x % network.switches.length]!, network.switches[y % network.switches.length]!];
      if (a === b) return;
      const among = { from: { switch: a.id }, to: { switch: b.id } };
      const design = withGoals(network, { ...ALL, vlans: '10', among });
      for (const proposal of proposed(design).proposals) holds(design, proposal);
    }),
    runs(25),
  );
});

/** Three switches in a ring, with a host at each of the first two. */
function ring(mode: Design['mode']): Design {
  const names = ['mill', 'lock', 'weir'];
  const ports = names.flatMap((at) =>
    [1, 2, 3].map((n) => ({ id: `${at}.${n}`, switch: at, name: `${n}`, number: n, speed: 1000 })),
  );
  const link = (a: string, b: string) => ({ id: `${a}-${b}`, a: { port: `${a}.1` }, b: { port: `${b}.2` } });
  return {
    ...emptyDesign('ring'),
    mode,
    vlans: [10, 20].map((number) => ({ id: `v${number}`, number })),
    switches: names.map((id, i) => ({ id, name: id, mac: `00:00:00:00:00:0${i + 1}`, priority: 4096 * (i + 1) })),
    ports: ports.map((p) => (p.number === 3 ? { ...p, edge: true, native: 10 } : p)),
    links: [
      link('mill', 'lock'),
      link('lock', 'weir'),
      link('weir', 'mill'),
      ...['mill', 'lock'].map((s) => ({ id: `${s}-host`, a: { port: `${s}.3` }, b: { host: `${s}-host` } })),
    ],
    hosts: ['mill', 'lock'].map((s) => ({ id: `${s}-host`, name: `${s}-host` })),
  };
}
const withoutHosts = (design: Design): Design => ({ ...design, hosts: [], links: design.links.slice(0, 3) });

test('a VLAN is put on a cable that is there before a new one is laid', () => {
  const whole = withoutHosts(ring('per-vlan-rstp'));
  const lacking = whole.ports.map((p) => (p.id === 'lock.1' ? { ...p, vlans: '10' } : p));
  const design = withGoals({ ...whole, ports: lacking }, ALL);
  const [best] = proposed(design).proposals;
  expect(editListWords(design, best!.edits)).toEqual(['lock 1: VLANs 10,20']);
  holds(design, best!);
});

test('a host on one switch gets a second card; of cables those are taken that can be laid', () => {
  const design = withGoals(ring('rstp'), {
    ...ALL,
    vlans: '10',
    among: { from: { host: 'mill-host' }, to: { host: 'lock-host' } },
  });
  const [best] = proposed(design).proposals;
  expect(best!.meets.map((g) => g.id)).toEqual(['all']);
  holds(design, best!);
  expect(editListWords(design, best!.edits).filter((w) => w.startsWith('new cable'))).toHaveLength(2);

  const tail = withGoals({ ...withoutHosts(ring('rstp')), links: design.links.slice(0, 2) }, ALL);
  const barred = { ...tail, cableCosts: [{ id: 'c', from: { switch: 'mill' }, to: { switch: 'weir' } }] };
  expect(proposed(tail).proposals.map((p) => p.cables)).toContain(1);
  for (const proposal of proposed(barred).proposals)
    expect(editListWords(barred, proposal.edits).join()).not.toMatch(
      /new cable (mill \S+( \(new port\))? – weir|weir \S+( \(new port\))? – mill)/,
    );
});

test('classic switches are made rapid where forward delays last too long, and shared cables full duplex', () => {
  const short: Goal = { id: 'short', type: 'outage', vlans: 'all', atMost: 1 };
  const classic = withGoals(withoutHosts(ring('stp')), short);
  const [best] = proposed(classic).proposals;
  expect(editListWords(classic, best!.edits)).toEqual(['design: mode rstp']);
  holds(classic, best!);

  const rapid = withoutHosts(ring('rstp'));
  const half = withGoals({ ...rapid, ports: rapid.ports.map((p) => ({ ...p, duplex: 'half' as const })) }, short);
  for (const proposal of proposed(half).proposals) holds(half, proposal);
});

test('timers are shortened where that is enough', () => {
  const goal: Goal = { id: 'short', type: 'outage', vlans: 'all', atMost: 35 };
  const classic = withGoals(withoutHosts(ring('stp')), goal);
  const { proposals } = proposed(classic);
  for (const proposal of proposals) holds(classic, proposal);
  expect(proposals.some((p) => p.edits.some((e) => e.type === 'set' && e.field === 'forwardDelay'))).toBe(true);
});

test('a link that is too full with a failure gets a second cable', () => {
  const demand = { id: 'd', vlan: 10, from: { host: 'mill-host' }, to: { host: 'lock-host' }, load: 900 };
  const goal: Goal = { id: 'room', type: 'load-left', vlans: 'all', percent: 95 };
  const network = ring('rstp');
  const faster = network.ports.map((p) =>
    p.number === 3 || p.id === 'mill.1' || p.id === 'lock.2' ? { ...p, speed: 10_000 } : p,
  );
  const slow = faster.map((p) => (p.id === 'lock.1' || p.id === 'weir.2' ? { ...p, speed: 500 } : p));
  const design = { ...withGoals({ ...network, ports: slow }, goal), demands: [demand] };
  expect(statesOf(design).get('room')).toBe('broken');
  const [best] = proposed(design).proposals;
  expect(best!.meets.map((g) => g.id)).toEqual(['room']);
  holds(design, best!);
});

test('settings for the network as it is are looked at with every failure as well', () => {
  const design = applied(asCabled(), [addElement('goal', { ...ALL, vlans: '130' })]);
  const { proposals } = proposed(design);
  expect(proposals.length).toBeGreaterThan(0);
  for (const proposal of proposals) holds(design, proposal);
  expect(proposals[0]!.leaves).toEqual([]);
});

test('what no change meets is said, with the reason', () => {
  const goal: Goal = { id: 'never', type: 'outage', vlans: 'all', atMost: 0 };
  const { proposals, contradictions } = proposed(withGoals(withoutHosts(ring('rstp')), goal));
  expect(proposals).toEqual([]);
  expect(contradictions.map((c) => c.sentence).join()).toMatch(
    /^Neither settings nor cables were found that meet “No single/,
  );
});
