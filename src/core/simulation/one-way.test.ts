/** Links of which one direction loses frames. */
import { runOf } from '../../../tests/support/rehearsals';
import { asMeant } from '../../demo/brackwater';
import type { Design } from '../design';
import type { Trace } from '../trace';

const run = (design: Design, until: number, ...events: object[]) => runOf(design, until, events, true);

test('lost BPDUs leave LACP alone: the bundle stays up', () => {
  const event = { kind: 'bpdu-loss' as const, at: 5, link: 'core-east:1--core-west:1', from: 'a' };
  const trace = run(asMeant(), 120, event);
  expect(trace.happenings.filter((h) => h.kind === 'bundle' && h.at > 0)).toEqual([]);
});

describe('frames of one end of a link are lost', () => {
  const link = 'core-east:1--core-west:1';
  const lost = (frames: 'control' | 'all' | 'data') => ({ kind: 'bpdu-loss' as const, at: 5, link, from: 'a', frames });
  const members = (trace: Trace) =>
    trace.happenings.flatMap((h) => (h.kind === 'bundle' && h.at > 0 ? [h.active] : []));
  test('with LACPDUs the member leaves the bundle at both ends after the timeout, and data never stops', () => {
    const trace = run(asMeant(), 120, lost('control'));
    expect(members(trace)).toEqual([1, 1]);
    expect(trace.happenings.find((h) => h.kind === 'bundle' && h.at > 5e6)!.at).toBeGreaterThan(60e6);
  });
  test.each(['data', 'all'] as const)('%s: whoever talks over it is silent, by either direction', (frames) => {
    const design = asMeant();
    const quiet = run(design, 20);
    const lane = quiet.contacts.find((c) => c.spans[0]!.ok && c.spans[0]!.path.length > 2)!;
    const over = design.links.find((l) => 'port' in l.a && lane.spans[0]!.path.includes(l.a.port) && 'port' in l.b)!;
    const trace = run(design, 8, { kind: 'bpdu-loss', at: 5, link: over.id, from: 'a', frames });
    const same = trace.contacts.find((c) => c.from === lane.from && c.to === lane.to && c.vlan === lane.vlan)!;
    expect(same.spans.map((s) => [s.at / 1e6, s.ok])).toEqual([
      [0, true],
      [5, false],
    ]);
  });
});
