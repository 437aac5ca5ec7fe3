import { asMeant } from '../../../demo/brackwater';
import { emptyDesign, setField } from '../../design';
import type { Design, Edit } from '../../design';
import { fieldsOf, framesOf, storyOf, treesWords } from '../../trace';
import { rehearse, rehearsing } from '../run';
import type { Trace } from '../../trace';
import { runOf } from '../../../../tests/support/rehearsals';
import { vlanClasses } from '../../network';

/** Three switches in a line, with what each cable carries. */
function line(...vlans: readonly (readonly [string, string])[]): Design {
  const design = emptyDesign('line');
  design.mode = 'rstp';
  design.vlans = [10, 20, 30].map((number) => ({ id: `v${number}`, number }));
  design.switches = ['a', 'b', 'c'].map((name, i) => ({ id: name, name, mac: `00:00:5e:00:53:0${i + 1}` }));
  vlans.forEach(([near, far], i) => {
    const [left, right] = ['abc'[i]!, 'abc'[i + 1]!];
    design.ports.push(
      { id: `${left}2`, switch: left, name: '2', number: 2, speed: 1000, vlans: near },
      { id: `${right}1`, switch: right, name: '1', number: 1, speed: 1000, vlans: far },
    );
    design.links.push({ id: `${left}${right}`, a: { port: `${left}2` }, b: { port: `${right}1` } });
  });
  return design;
}
const run = (design: Design, until: number, ...events: object[]): Trace => runOf(design, until, events);
const set = (at: number, ...edits: Edit[]) => ({ kind: 'set', at, label: 'a change', edits });
const reachOf = (trace: Trace, vlan: number) =>
  trace.reach.find((l) => trace.classes[l.vlan]!.includes(vlan))!.spans.map((s) => [s.at / 1e6, s.apart]);
const told = (design: Design, trace: Trace) =>
  storyOf(design, trace).flatMap((l) => (/VLAN/.test(l.text) ? [l.text] : []));

describe('whether a VLAN is connected', () => {
  test('it is partitioned with its only cable, and comes together with it', () => {
    const design = line(['all', 'all'], ['all', 'all']);
    const trace = run(design, 10, { kind: 'link-down', at: 2, link: 'bc' }, { kind: 'link-up', at: 5, link: 'bc' });
    expect(reachOf(trace, 20).slice(0, 2)).toEqual([
      [0, []],
      [2, [['c']]],
    ]);
    expect(reachOf(trace, 20).at(-1)![1]).toEqual([]);
    expect(told(design, trace)).toEqual([
      'VLANs 10, 20, 30 are partitioned: the rest does not reach c.',
      expect.stringMatching(/^VLANs 10, 20, 30 are connected again, after 3\.0 s\.$/),
    ]);
  });
  test('one that a cable does not carry at both ends is apart from the start, the others are not', () => {
    const design = line(['all', 'all'], ['10,30', '10,20,30']);
    const trace = run(design, 3);
    expect(reachOf(trace, 20)).toEqual([[0, [['c']]]]);
    expect(reachOf(trace, 10)).toEqual([[0, []]]);
    expect(told(design, trace)).toEqual(['VLAN 20 is partitioned from the start: the rest does not reach c.']);
  });
  test('a switch that is off is not missed', () => {
    const trace = run(line(['all', 'all'], ['all', 'all']), 6, { kind: 'switch-off', at: 2, switch: 'c' });
    expect(reachOf(trace, 10)).toEqual([[0, []]]);
  });
  test('while old vectors circulate there is one line, with the worst partition and the final one', () => {
    const design = asMeant();
    const trace = run(design, 40, { kind: 'root-off', at: 5, vlan: 140 });
    const lane = trace.reach.find((l) => trace.classes[l.vlan]!.includes(140))!.spans;
    // What changes within 50 ms is not told.
    const lasting = lane.filter((s, i) => (lane[i + 1]?.at ?? Infinity) - s.at >= 50_000);
    const worst = Math.max(...lasting.map((s) => s.apart.flat().length));
    const lines = told(design, trace).filter((text) => /^VLANs 140, 150 /.test(text));
    expect(lines).toEqual([
      expect.stringMatching(
        new RegExp(
          `^VLANs 140, 150 are partitioned and change \\d+ times until .* s; at worst the rest does not reach ${worst} sw`,
        ),
      ),
      expect.stringMatching(/^VLANs 140, 150 are connected again, after \d+\.\d s\.$/),
    ]);
  });
  test('one that stays apart says so when it last changed', () => {
    const design = line(['all', 'all'], ['all', 'all']);
    const times = [1, 2, 3, 4, 5].map((at, i) => ({ kind: i % 2 ? 'link-up' : 'link-down', at, link: 'ab' }));
    const trace = run(design, 10, { kind: 'link-down', at: 0.5, link: 'bc' }, ...times);
    const [first, last, ...rest] = told(design, trace);
    expect(first).toMatch(
      /^VLANs 10, 20, 30 are partitioned and change 5 times until 5\.000 s; at worst the rest does not reach /,
    );
    expect(last).toMatch(/^VLANs 10, 20, 30 are still partitioned: the rest does not reach /);
    expect(rest).toEqual([]);
  });
  test('under classic spanning tree it is apart until the way that was blocked has listened and learned', () => {
    const trace = run({ ...asMeant(), mode: 'per-vlan-stp' }, 40, {
      kind: 'link-down',
      at: 5,
      link: 'quay-a:3--ticket-hall:1',
    });
    expect(reachOf(trace, 110)).toEqual([
      [0, []],
      [5, [['ticket-hall']]],
      [35, []],
    ]);
    expect(reachOf(trace, 140)).toEqual([[0, []]]);
  });
});

describe('VLANs whose frames go alike', () => {
  const classes = (design: Design, watched: string[] = []) => [...vlanClasses([design], watched)];
  test('are those that the same cables carry', () => {
    expect(classes(line(['all', 'all'], ['all', 'all']))).toEqual([
      [10, 10],
      [20, 10],
      [30, 10],
    ]);
    expect(classes(line(['all', 'all'], ['10,30', '10,20,30']))).toEqual([
      [10, 10],
      [20, 20],
      [30, 10],
    ]);
  });
  test('with ports of hosts of their own all the same, but for those at which something is plugged in', () => {
    const design = line(['all', 'all'], ['all', 'all']);
    design.ports.push({ id: 'c2', switch: 'c', name: '2', number: 2, speed: 1000, vlans: '30', native: 30 });
    expect(classes(design)[2]).toEqual([30, 10]);
    expect(classes(design, ['c2'])[2]).toEqual([30, 30]);
  });
  test('with the same settings, where they have trees of their own; elsewhere those do not count', () => {
    const design = line(['all', 'all'], ['all', 'all']);
    design.switches[0]!.vlanPriority = { '20': 4096 };
    expect(classes(design).map(([, own]) => own)).toEqual([10, 10, 10]);
    expect(classes({ ...design, mode: 'per-vlan-rstp' }).map(([, own]) => own)).toEqual([10, 20, 10]);
    const dear = { ...design, mode: 'per-vlan-rstp' as const, ports: design.ports.map((p) => ({ ...p })) };
    dear.ports[3]!.vlanCost = { '10': 7 };
    expect(classes(dear).map(([, own]) => own)).toEqual([10, 20, 30]);
  });
  test('of a mixed network VLAN 1 has the tree of those who know one alone', () => {
    const design = line(['all', 'all'], ['all', 'all']);
    design.mode = 'per-vlan-rstp';
    design.vlans.push({ id: 'v1', number: 1 });
    expect(classes(design).map(([, own]) => own)).toEqual([1, 1, 1, 1]);
    design.switches[2]!.protocol = 'rstp';
    expect(classes(design).map(([, own]) => own)).toEqual([1, 10, 10, 10]);
  });
  test('in all designs that a script makes of one', () => {
    const design = line(['all', 'all'], ['all', 'all']);
    const events = [set(5, setField('port', 'c1', 'vlans', '10,30'))];
    expect(runOf(design, 8, events).classes).toEqual({ 10: [10, 30], 20: [20] });
  });
});

describe('a tree that is run for several VLANs', () => {
  const design: Design = { ...asMeant(), scripts: [] };
  const trace = runOf(design, 6, [{ kind: 'switch-off', at: 3, switch: 'gate' }]);
  test('has the ports of hosts of all', () => {
    expect(trace.classes[110]).toEqual([110, 120, 130]);
    const own = trace.ports.filter((l) => l.tree === 'vlan-110').map((l) => l.port);
    expect(own).toEqual(expect.arrayContaining(['ticket-hall:10', 'gate:10']));
    expect(trace.ports.some((l) => l.tree === 'vlan-130')).toBe(false);
  });
  test('is said in each at the port of a host, with its number in the identifiers', () => {
    const frame = [...framesOf(trace.frames)].find((f) => f.from === 'gate:10')!;
    const fields = Object.fromEntries(fieldsOf(frame.octets).map((f) => [f.name, f.value]));
    expect([fields.root, fields.bridge].map((id) => /\+ (\d+) ·/.exec(id!)?.[1])).toEqual(['130', '130']);
    const trunk = [...framesOf(trace.frames)].find(
      ({ from, vlan }) => (from === 'gate:1' || from === 'quay-a:4') && vlan === 110,
    )!;
    expect(fieldsOf(trunk.octets).find((f) => f.name === 'VLAN')!.value).toBe('110');
  });
  test('at a port is named with the VLANs that it carries', () => {
    expect(treesWords(trace, ['vlan-110'], { design, port: 'gate:10' })).toBe('VLAN 130');
    expect(treesWords(trace, ['vlan-110'], { design, port: 'gate:1' })).toBe('VLANs 110, 120, 130');
  });
});

describe('a run in turns', () => {
  const script = { id: 's', name: 's', until: 60, events: [], probes: [] };
  test('that is stopped keeps what happened until then, and says so', () => {
    const turns = rehearsing(asMeant(), script, { turn: 3000 });
    let reached = -Infinity;
    while (reached < 10) {
      const { value, done } = turns.next(false);
      if (done) throw new Error('it was not long enough');
      expect(value).toBeGreaterThanOrEqual(reached);
      reached = value;
    }
    const { value, done } = turns.next(true);
    expect(done).toBe(true);
    const trace = value as Trace;
    expect(trace.ended).toBe('cancelled');
    expect(trace.until / 1e6).toBeCloseTo(reached, 3);
    expect(trace.sentence).toBe(`Cancelled at ${reached.toFixed(1)} s. The run until then is kept.`);
    expect(trace.frames.count).toBeGreaterThan(0);
  });
  test('is the same as one in one go', () => {
    const turns = rehearsing(asMeant(), { ...script, until: 8 }, { turn: 500 });
    let step = turns.next(false);
    while (!step.done) step = turns.next(false);
    const whole = rehearse(asMeant(), { ...script, until: 8 });
    expect(step.value).toEqual(whole);
  });
});
