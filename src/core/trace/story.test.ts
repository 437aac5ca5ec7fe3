import { emptyDesign } from '../design';
import type { Design, ScriptEvent } from '../design';
import { gapsOf, spanAt, storyOf } from './story';
import { portWords, treesWords } from './words';
import { rehearse } from '../simulation';
import type { Trace } from './recorder';
import { lasting } from '../standard';

/** A root and its next, and many switches that are cabled to both. */
function star(leaves: number): Design {
  const design = emptyDesign('star');
  design.mode = 'rstp';
  design.vlans = [{ id: 'v1', number: 1 }];
  const add = (name: string, priority: number) =>
    design.switches.push({
      id: name,
      name,
      mac: `00:00:5e:00:53:${design.switches.length.toString(16).padStart(2, '0')}`,
      priority,
    });
  add('root', 4096);
  add('next', 8192);
  const port = (s: string) => {
    const number = design.ports.filter((p) => p.switch === s).length + 1;
    design.ports.push({ id: `${s}:${number}`, switch: s, name: `${number}`, number, speed: 1000 });
    return { port: `${s}:${number}` };
  };
  const link = (a: string, b: string) => design.links.push({ id: `${a}-${b}`, a: port(a), b: port(b) });
  link('root', 'next');
  for (let i = 1; i <= leaves; i++) {
    add(`leaf-${i}`, 32768);
    link(`leaf-${i}`, 'root');
    link(`leaf-${i}`, 'next');
  }
  return design;
}
const run = (design: Design, ...events: object[]): Trace =>
  rehearse(design, {
    id: 's',
    name: 's',
    until: 40,
    events: events.map((e, i) => ({ id: `e${i}`, ...e })) as ScriptEvent[],
    probes: [],
  });
const texts = (design: Design, trace: Trace) => storyOf(design, trace).map((l) => l.text);

describe('the story', () => {
  test('a network that stands still has none', () => {
    const design = star(3);
    expect(texts(design, run(design))).toEqual([]);
  });
  test('few ports are shown one by one, many as one line', () => {
    const few = star(3);
    expect(texts(few, run(few, { kind: 'switch-off', at: 5, switch: 'root' }))).toEqual(
      expect.arrayContaining(['leaf-1 2 forwards as root port.', 'leaf-3 2 forwards as root port.']),
    );
    const many = star(12);
    const lines = texts(many, run(many, { kind: 'switch-off', at: 5, switch: 'root' }));
    const together = lines.find((t) => / ports forward as root ports: /.test(t))!;
    expect(together).toMatch(/^12 ports forward as root ports: leaf-1 2, .* and 6 more ports\.$/);
    expect(lines.some((t) => t === 'leaf-7 2 forwards as root port.')).toBe(false);
  });
  test('tells who is root after the root is gone, and after it is back', () => {
    const design = star(2);
    const trace = run(
      design,
      { kind: 'switch-off', at: 5, switch: 'root' },
      { kind: 'switch-on', at: 30, switch: 'root' },
    );
    const roots = texts(design, trace).filter((t) => / is root in the common tree/.test(t));
    expect(roots[0]).toMatch(/^next is root/);
    expect(roots.at(-1)).toMatch(/^root is root/);
  });
  test('an event at the very start is shown like any other, with what it brings about', () => {
    const design = star(3);
    const [atStart, later] = [0, 5].map((at) => texts(design, run(design, { kind: 'switch-off', at, switch: 'root' })));
    expect(atStart).toContain('Switch root off.');
    expect(atStart!.filter((t) => /root port|is root/.test(t)).length).toBeGreaterThan(2);
    expect(atStart).toEqual(later);
  });
  test('lines stand in the order of time, and an event before what it brings about', () => {
    const design = star(4);
    const lines = storyOf(design, run(design, { kind: 'switch-off', at: 5, switch: 'root' }));
    expect(lines.map((l) => l.at)).toEqual([...lines.map((l) => l.at)].sort((a, b) => a - b));
    expect(lines[0]).toMatchObject({ kind: 'event', text: 'Switch root off.' });
  });
});

describe('words', () => {
  test('lengths of time have as many digits as matter', () => {
    expect([505, 1010, 12_400, 999_999, 1_000_000, 30_000_000].map(lasting)).toEqual([
      '505 µs',
      '1.0 ms',
      '12 ms',
      '1000 ms',
      '1.0 s',
      '30.0 s',
    ]);
  });
  test('trees are named by their VLANs, with those of the same outcome, or by their instance', () => {
    const trace = { classes: { 10: [10, 11, 12], 30: [30] } } as unknown as Trace;
    expect(treesWords(trace, ['vlan-10'])).toBe('VLANs 10-12');
    expect(treesWords(trace, ['vlan-10', 'vlan-30'])).toBe('VLANs 10-12, 30');
    expect(treesWords(trace, ['vlan-30'])).toBe('VLAN 30');
    expect(treesWords(trace, ['cist', 'msti-2'])).toBe('the CIST, instance 2');
    expect(treesWords(trace, ['rstp'])).toBe('the common tree');
  });
  test('a port that a script plugged in keeps its own name', () => {
    expect([portWords(star(1), 'leaf-1:2'), portWords(star(1), 'intruder at x')]).toEqual([
      'leaf-1 2',
      'intruder at x',
    ]);
  });
});

describe('lanes', () => {
  const span = (at: number, ok: boolean) => ({ at, ok, path: [], copies: 0 });
  test('a gap lasts over all that changes in it until contact is back', () => {
    const lane = { from: 'a', to: 'b', vlan: 1, spans: [span(0, true), span(5, false), span(7, false), span(9, true)] };
    expect(gapsOf(lane)).toEqual([{ from: 5, to: 9 }]);
    expect(gapsOf({ ...lane, spans: [span(0, true), span(5, false)] })).toEqual([{ from: 5, to: null }]);
    expect(gapsOf({ ...lane, spans: [span(0, false), span(3, true)] })).toEqual([{ from: 0, to: 3 }]);
  });
  test('the span of a moment is the last that has begun', () => {
    const spans = [{ at: 0 }, { at: 5 }, { at: 9 }];
    expect([-1, 0, 4.9, 5, 100].map((t) => spanAt(spans, t)?.at)).toEqual([undefined, 0, 0, 5, 9]);
  });
});
