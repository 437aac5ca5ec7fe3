import { emptyDesign } from '../../design';
import type { Design, Script } from '../../design';
import { decodeBpdu, openEnvelope } from '../../protocols/frames';
import { framesOf, loopEffect, storyOf } from '../../trace';
import { rehearse, startRehearsal } from '../run';

/** Switches s1, s2, … with priorities in that order, and cables between them by their numbers. */
function network(cables: readonly (readonly [number, number])[]): Design {
  const design = emptyDesign('rings');
  design.mode = 'rstp';
  design.vlans = [{ id: 'v1', number: 1 }];
  const count = Math.max(...cables.flat());
  for (let i = 1; i <= count; i++)
    design.switches.push({ id: `s${i}`, name: `s${i}`, mac: `00:00:5e:00:53:0${i}`, priority: i * 4096 });
  const port = (s: number) => {
    const number = design.ports.filter((p) => p.switch === `s${s}`).length + 1;
    design.ports.push({ id: `s${s}:${number}`, switch: `s${s}`, name: `${number}`, number, speed: 1000 });
    return { port: `s${s}:${number}` };
  };
  cables.forEach(([a, b], i) => design.links.push({ id: `l${i}`, a: port(a), b: port(b) }));
  return design;
}

const script = (until: number, events: Script['events']): Script => ({ id: 's', name: 's', until, events, probes: [] });
const treeOff = (design: Design): Script['events'] =>
  design.switches.map((s, i) => ({ id: `e${i}`, at: 5, kind: 'tree-off', switch: s.id }));

describe('rings', () => {
  const two = network([
    [1, 2],
    [1, 2],
    [2, 3],
    [3, 4],
    [3, 4],
  ]);
  test('two rings are distinguished, and the cable between them is in neither', () => {
    const { loops } = rehearse(two, script(10, treeOff(two)));
    const lasting = loops.filter((l) => l.to === null);
    expect(lasting.map((l) => [...l.ports].sort())).toEqual([
      ['s1:1', 's1:2', 's2:1', 's2:2'],
      ['s3:2', 's3:3', 's4:1', 's4:2'],
    ]);
  });
  test('a ring that is opened ends, and the other goes on; how long it lasted is said', () => {
    const cut = { id: 'cut', at: 8, kind: 'link-down', link: 'l0' } as const;
    const trace = rehearse(two, script(10, [...treeOff(two), cut]));
    const [first, second] = ['s1:1', 's3:2'].map((p) => trace.loops.findLast((l) => l.ports.includes(p))!);
    expect([first!.to, second!.to]).toEqual([8_000_000, null]);
    expect(storyOf(two, trace).map((l) => l.text)).toContain(
      'The loop in VLAN 1 over s1 1, s1 2, s2 1, s2 2 ends after 3.0 s.',
    );
  });
  test('what it does: by the time once round, both ways, against the speed of its slowest link', () => {
    const { loops } = rehearse(two, script(10, treeOff(two)));
    const loop = loops.find((l) => l.to === null)!;
    // Two switches, 505 µs each; a frame of 64 octets takes 672 bits of 1 Gb/s.
    expect([loop.around, loop.turns, loop.rate]).toEqual([1010, 1, 1000]);
    expect(loopEffect(loop)).toEqual({
      around: 1010,
      rate: 1000,
      limited: null,
      full: 1_488_095,
      copies: 1980,
      moves: 1980,
      broadcasts: 752,
      fullAfter: null,
    });
  });
  test('with a third cable copies double at every turn: one broadcast is enough', () => {
    const three = network([
      [1, 2],
      [1, 2],
      [1, 2],
    ]);
    const loop = rehearse(three, script(10, treeOff(three))).loops.find((l) => l.to === null)!;
    expect(loop.turns).toBe(2);
    // 1 980 a second, doubled ten times, are more than 1 488 095.
    expect(loopEffect(loop)).toMatchObject({ broadcasts: 1, fullAfter: 10 * 1010 });
  });
});

describe('the root is lost behind a ring', () => {
  const ring = network([
    [1, 2],
    [2, 3],
    [3, 4],
    [4, 5],
    [5, 2],
  ]);
  const trace = rehearse(ring, script(60, [{ id: 'e', at: 5, kind: 'switch-off', switch: 's1' }]));
  const ages = [...framesOf(trace.frames)].flatMap(({ at, octets }) => {
    const bpdu = decodeBpdu(openEnvelope(octets).payload);
    return at > 5_000_000 && bpdu?.rootPriority === 4096 ? [{ at, age: bpdu.messageAge / 256 }] : [];
  });

  test('its old vector circulates, older with every switch, until it expires', () => {
    expect(Math.max(...ages.map((a) => a.age))).toBeGreaterThanOrEqual(18);
    expect(Math.max(...ages.map((a) => a.age))).toBeLessThanOrEqual(20);
  });
  test('that takes as long as the hold count lets it, and then the next root is agreed on', () => {
    const last = (ages.at(-1)!.at - 5_000_000) / 1e6;
    expect(last).toBeGreaterThan(1);
    expect(last).toBeLessThan(20);
    expect(trace.roots[0]!.spans.at(-1)!.roots).toEqual(['s2']);
    expect(trace.sentence).toBe('');
  });
});

test('switches begin to count their seconds within the spread that is asked for', () => {
  const design = network([
    [1, 2],
    [2, 3],
  ]);
  const phases = (helloSpread?: number) =>
    [...startRehearsal(design, { ...script(5, []), helloSpread }).world.nodes.values()].map((n) => n.phase);
  expect(phases(0)).toEqual([0, 0, 0]);
  expect(Math.max(...phases(20))).toBeLessThan(20_000);
  expect(Math.max(...phases())).toBeGreaterThan(1_000_000);
  expect(Math.max(...phases())).toBeLessThan(2_000_000);
});
