/** Plans of the demo and of small networks made for one thing each. */
import { asCabled, asMeant, asPair } from '@/demo/brackwater';
import { planned } from '../../../tests/support/planned';
import { applyEdits, emptyDesign, readDesign, setField } from '../design';
import type { Design, Edit } from '../design';
import { quarryAsItIs, quarryInstances, quarryOneTree } from '@/demo/quarry';
import { mstConfigOf } from '../network';
import { splitWork } from './arrange';
import { scriptOfPlan } from './carried-out';
import { planChange } from './plan';
import { planMaintenance } from './maintenance';
import { migrations } from './migration';
import { planJson } from './plan-json';
import { compareCost } from './rank';
import { lineWords } from './step-words';

const changed = (design: Design, ...edits: Edit[]): Design => {
  const applied = applyEdits(design, edits);
  if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
  return applied.design;
};

/** A line of switches, the first of them root, and a host at each end. */
function line(names: string, mode: Design['mode'] = 'rstp'): Design {
  const design = { ...emptyDesign('line'), mode };
  const port = (at: string, more: object = {}) => {
    const number = design.ports.filter((p) => p.switch === at).length + 1;
    design.ports.push({ id: `${at}:${number}`, switch: at, name: `${number}`, number, speed: 1000, ...more });
    return { port: `${at}:${number}` };
  };
  names.split('').forEach((name, i) => {
    design.switches.push({ id: name, name, mac: `00:00:5e:00:53:1${i}` });
    const before = names[i - 1];
    if (before !== undefined) design.links.push({ id: `${before}${name}`, a: port(before), b: port(name) });
  });
  for (const [host, at] of [
    ['left', names[0]!],
    ['right', names.at(-1)!],
  ] as const) {
    design.hosts.push({ id: host, name: host });
    design.links.push({ id: host, a: port(at, { edge: true }), b: { host } });
  }
  return design;
}
/** The same with a second cable between the first two. */
function doubled(design: Design, a: string, b: string): Design {
  const port = (at: string) => ({ id: `${at}:9`, switch: at, name: '9', number: 9, speed: 1000 });
  return {
    ...design,
    ports: [...design.ports, port(a), port(b)],
    links: [...design.links, { id: 'second', a: { port: `${a}:9` }, b: { port: `${b}:9` } }],
  };
}
const bundle = (at: string, kind: 'static' | 'lacp') => ({
  id: `${at}-b`,
  switch: at,
  name: 'b',
  number: 100,
  members: [`${at}:1`, `${at}:9`],
  kind,
});

describe('the demo', () => {
  test('from as cabled to as meant: a step at a device, no outage that counts, and no order is better', () => {
    const plan = planned(asCabled(), asMeant(), { at: 'ticket-desk' });
    expect(plan.place).toEqual({ at: 'ticket-desk', vlan: 199 });
    expect(plan.cost).toMatchObject({ consoles: 0, lost: 0, worst: 0, sum: 0 });
    expect(plan.exact).toBe(true);
    const json = planJson(plan);
    expect(json.worstOutage).toBeLessThan(0.01);
    expect(json.steps.find((s) => s.kind === 'cable')).toMatchObject({
      device: 'quay-b',
      with: 'cold-store',
      set: [{ what: 'cable quay-b 9 – cold-store 2', from: 'not plugged in', to: 'plugged in' }],
      check: ['quay-b to-cold-store: up, 2 of 2 members active', 'cold-store to-quay-b: up, 2 of 2 members active'],
      inverse: [{ what: 'cable quay-b 9 – cold-store 2', from: 'plugged in', to: 'not plugged in' }],
    });
    expect(json.steps.find((s) => s.kind === 'vlans')!.moves).toEqual([
      { tree: 'vlan-130', switch: 'gate', port: '2', from: 'none', to: 'alternate' },
    ]);
  });
  test('to a pair of core switches: the order of the tables would interrupt for seconds, the one found does not', () => {
    const plan = planned(asMeant(), asPair());
    expect(plan.table!.worst).toBeGreaterThan(1);
    expect(plan.cost.worst).toBe(0);
    const at = (id: string) => plan.steps.findIndex((s) => s.work.id === id);
    expect(at('pair pair')).toBeLessThan(at('bundle core-east:lag110'));
  });
});

test('what interrupts waits until there is another way', () => {
  const from = changed(doubled(line('abc'), 'a', 'b'), setField('link', 'second', 'down', true));
  const to = changed(from, setField('link', 'second', 'down', null), setField('link', 'ab', 'down', true));
  const plan = planned(from, to, { temporary: false });
  expect(plan.steps.map((s) => s.work.id)).toEqual(['cable second', 'cable ab']);
  expect(plan.cost).toMatchObject({ lost: 0, worst: 0 });
});

test('who cannot be reached any more is set before: else a console is said to be needed', () => {
  const from = line('abc');
  const cut = setField('port', 'b:2', 'vlans', '2');
  const far = setField('switch', 'c', 'priority', 61440);
  const plan = planned(from, changed(from, cut, far), { at: 'left', temporary: false });
  expect(plan.steps.map((s) => s.work.device)).toEqual(['c', 'b']);
  expect(planJson(plan).unreachable).toEqual([]);
  // A cable that is out already leaves no way to the last of them.
  const parted = changed(from, setField('link', 'bc', 'down', true));
  expect(planJson(planned(parted, changed(parted, far), { at: 'left' })).unreachable).toEqual(['c']);
});

describe('a static bundle of two cables in service', () => {
  const from = doubled(line('ab'), 'a', 'b');
  const to = { ...from, bundles: [bundle('a', 'static'), bundle('b', 'static')] };
  test('is made with all members but one shut, which are opened when both ends stand', () => {
    const plan = planned(from, to);
    const kinds = plan.steps.map((s) => s.work.kind);
    expect(kinds).toEqual(['temporary', 'bundle', 'bundle', 'temporary']);
    expect(plan.steps[0]!.set.map(lineWords)).toEqual(['port 9: open → shut']);
    expect(plan.constraints.map((c) => c.sentence).join()).toMatch(/one end alone frames loop/);
    expect(plan.steps.every((s) => s.measured.looped === 0)).toBe(true);
  });
  test('without steps that are taken back both ends are one step', () => {
    const plan = planned(from, to, { temporary: false });
    expect(plan.steps).toHaveLength(1);
    expect(plan.steps[0]!.work).toMatchObject({ kind: 'bundle', device: 'a', other: 'b' });
  });
});

test('a setting of the design as a whole is set switch by switch', () => {
  const from = line('abc', 'stp');
  const plan = planned(from, { ...from, mode: 'rstp' });
  expect(plan.steps.map((s) => `${s.work.kind} ${s.work.device}`).sort()).toEqual(['mode a', 'mode b', 'mode c']);
  expect(plan.steps[0]!.set.map(lineWords)).toEqual([
    'spanning tree: STP, one tree for all VLANs → RSTP, one tree for all VLANs',
  ]);
  expect(plan.steps.at(-1)!.after.switches.map((s) => s.protocol)).toEqual(['rstp', 'rstp', 'rstp']);
});

test('a region that changes goes from switch to switch, with its map in words', () => {
  const base = { ...line('ab', 'mstp'), vlans: [10, 20].map((number) => ({ id: `v${number}`, number })) };
  const region = (map: Record<string, string>) => [{ id: 'r', name: 'quay', revision: 1, map }];
  const plan = planned({ ...base, regions: region({ '1': '10' }) }, { ...base, regions: region({ '1': '10,20' }) });
  expect(plan.steps.map((s) => s.work.kind)).toEqual(['region', 'region']);
  expect(plan.steps[0]!.set.map(lineWords)).toEqual(['VLANs of instance 1: 10 → 10,20']);
});

test('a switch that comes into a region gets its name, revision and map with its mode, in one go', () => {
  const rapid = line('abc');
  const region = { id: 'r', name: 'wharf', revision: 2, map: { 1: '10,20' } };
  const { steps } = planned(rapid, { ...rapid, mode: 'mstp', regions: [region] });
  expect(steps.map((s) => s.work.kind)).toEqual(['mode', 'mode', 'mode']);
  for (const { set } of steps) {
    expect(set.map(lineWords).sort()).toEqual([
      'VLANs of instance 1: none → 10,20',
      expect.stringMatching(/^region name: 00:00:5e:00:53:1\d → wharf$/),
      'region revision: 0 → 2',
      'spanning tree: RSTP, one tree for all VLANs → MSTP, one tree per instance',
    ]);
  }
});

test('mode and priorities of one switch are one step where that costs no more', () => {
  const { steps } = planned(quarryAsItIs(), quarryOneTree());
  expect(steps.map((s) => s.work.kind).sort()).toEqual(['cable', 'cable', 'mode', 'mode']);
  expect(steps.find((s) => s.work.kind === 'mode')!.set.map((l) => l.what)).toEqual(
    expect.arrayContaining(['priority', 'spanning tree']),
  );
  const [work] = steps.flatMap((s) => (s.work.kind === 'mode' ? [s.work] : []));
  expect(splitWork(work!).map((w) => w.kind)).toContain('settings');
});

test('a plan into regions is a script that the design it begins with takes, with all that its frame has ready', () => {
  const from = quarryAsItIs();
  const script = scriptOfPlan(from, planned(from, quarryInstances()), 'into instances');
  expect(readDesign({ ...from, scripts: [script] }).ok).toBe(true);
  const [first] = script.events;
  expect(first).toMatchObject({ kind: 'set', label: expect.stringMatching(/^step 1 at hall-/) });
  const states = script.events.reduce<Design>(
    (d, e) => changed(d, ...((e.kind === 'set' ? e.edits : []) as Edit[])),
    from,
  );
  expect(new Set(states.switches.map((s) => mstConfigOf(states, s).name))).toEqual(new Set(['quarry']));
});

test('switches without a region stay alone until one is set', () => {
  const alone: Design = { ...line('abc'), mode: 'mstp' };
  const { steps } = planned(alone, { ...alone, regions: [{ id: 'r', name: 'wharf', revision: 1, map: {} }] });
  expect(steps.map((s) => s.work.kind)).toEqual(['region', 'region', 'region']);
  const regionsIn = (design: Design) => new Set(design.switches.map((s) => mstConfigOf(design, s).key)).size;
  expect([regionsIn(steps[0]!.before), regionsIn(steps[0]!.after), regionsIn(steps[2]!.after)]).toEqual([3, 3, 1]);
});

test('what cannot be planned is said in a sentence', () => {
  const from = line('ab');
  expect(planChange(from, from)).toMatchObject({
    ok: false,
    sentence: expect.stringMatching(/do not differ/) as string,
  });
  expect(planChange(from, line('xy'))).toMatchObject({
    ok: false,
    sentence: expect.stringMatching(/no switch in common/) as string,
  });
});

test('a name or a place on the sheet is no work', () => {
  const from = line('ab');
  const to = changed(from, setField('switch', 'a', 'name', 'other'), setField('switch', 'a', 'x', 7));
  expect(planChange(from, to).ok).toBe(false);
});

describe('maintenance', () => {
  test('a switch with another way beside it is drained, off, on and restored; nothing passes before it goes', () => {
    const design = asMeant();
    const found = planMaintenance(design, { kind: 'switch', id: 'quay-a' });
    if (!found.ok) throw new Error(found.sentence);
    const ids = found.plan.steps.map((s) => s.work.id);
    expect(ids.indexOf('out')).toBe(ids.indexOf('back') - 1);
    // The network is as it was.
    expect(found.plan.steps.at(-1)!.after.switches).toEqual(found.plan.steps[0]!.before.switches);
    expect(found.plan.cost.worst).toBeLessThanOrEqual(found.plan.table?.worst ?? Infinity);
  });
  test('a root is the last to be root before it goes, where that interrupts less', () => {
    const design = asMeant();
    const found = planMaintenance(design, { kind: 'switch', id: 'core-west' });
    if (!found.ok) throw new Error(found.sentence);
    const { steps, cost, table } = found.plan;
    expect(steps.map((s) => s.work.kind)).toEqual(['temporary', 'power', 'power', 'temporary']);
    expect(steps[0]!.set.map((l) => l.to)).toEqual(['61440', '61440', '61440']);
    expect(cost.worst).toBeLessThan(table!.worst);
    expect(steps.at(-1)!.after.switches).toEqual(steps[0]!.before.switches);
  });
  test('a classic link is drained, or not, by what interrupts less', () => {
    const design = doubled(line('abc', 'stp'), 'a', 'b');
    const found = planMaintenance(design, { kind: 'link', id: 'ab' });
    if (!found.ok) throw new Error(found.sentence);
    const plain = planMaintenance(design, { kind: 'link', id: 'ab' }, { temporary: false });
    if (!plain.ok) throw new Error(plain.sentence);
    expect(found.plan.cost.worst).toBeLessThanOrEqual(plain.plan.cost.worst);
  });
});

test('a migration goes by each rule that makes a difference, and the search is no worse than any', () => {
  const design = { ...line('abc', 'per-vlan-rstp') };
  for (const [i, tier] of (['core', 'distribution', 'access'] as const).entries()) design.switches[i]!.tier = tier;
  const ways = [...migrations(design, 'rstp')];
  expect(ways.map((w) => w.rule)).toEqual(['core-first', 'edge-first', 'least-outage']);
  expect(ways[0]!.plan.steps.map((s) => s.work.device)).toEqual(['a', 'b', 'c']);
  expect(ways[1]!.plan.steps.map((s) => s.work.device)).toEqual(['c', 'b', 'a']);
  const best = ways.at(-1)!.plan.cost;
  for (const { plan } of ways) expect(best.worst).toBeLessThanOrEqual(plan.cost.worst);
  expect(ways[0]!.separating).toEqual({ before: 7, most: 7, after: 7 });
  expect([...migrations(design, 'per-vlan-rstp')]).toEqual([]);
});

test('a pinned step keeps its place, and the others are ordered around it as well as they can be', () => {
  const options = { temporary: false };
  const free = planned(asCabled(), asMeant(), options);
  const ids = free.steps.map((s) => s.work.id);
  for (const [at, step] of [
    [0, ids[0]!],
    [2, ids[2]!],
    [0, ids.at(-1)!],
  ] as const) {
    const after = ids.filter((id) => id !== step).slice(0, at);
    const pinned = planned(asCabled(), asMeant(), { ...options, pins: [{ step, after }] });
    const now = pinned.steps.map((s) => s.work.id);
    expect(now[at]).toBe(step);
    expect([...now].sort()).toEqual([...ids].sort());
    expect(new Set(now.slice(0, at))).toEqual(new Set(after));
    expect(compareCost(pinned.cost, free.cost)).toBeGreaterThanOrEqual(0);
  }
  // A step that is not among them is passed over.
  expect(planned(asCabled(), asMeant(), { ...options, pins: [{ step: 'none', after: [] }] }).cost).toEqual(free.cost);
});

test('the pin of a step that was split, or put together again, holds for what it came from', () => {
  const options = { temporary: false };
  const ids = planned(asCabled(), asMeant(), options).steps.map((s) => s.work.id);
  const step = ids.find((id) => id.includes('core-east'))!;
  const parts = `${step}, priority + ${step}, guards`;
  const other = ids.find((id) => id !== step)!;
  const pinned = planned(asCabled(), asMeant(), { ...options, pins: [{ step: parts, after: [`${other}, priority`] }] });
  expect(pinned.steps.map((s) => s.work.id).slice(0, 2)).toEqual([other, step]);
});
