import { setField } from '../design';
import type { Design } from '../design';
import { asMeant } from '../../demo/brackwater';
import { consequencesOf, whyReceived } from './frame-decision';
import { frameAt, framesOf } from './frame-log';
import type { FrameRecord, Reception } from './frame-log';
import type { FrameWhy } from './frame-decision';
import type { Trace } from './recorder';
import { runOf } from '../../../tests/support/rehearsals';

const UPLINK = 'quay-a:3--ticket-hall:1';
const run = (design: Design, until: number, ...events: object[]): Trace => runOf(design, until, events);

interface Found {
  readonly frame: FrameRecord;
  readonly hearing: Reception;
  readonly why: FrameWhy;
}
/** The first frame that a receiver processed as asked for. */
function find(trace: Trace, wanted: (hearing: Reception, frame: FrameRecord) => boolean, regional = false): Found {
  for (const frame of framesOf(trace.frames))
    for (const hearing of frame.heard)
      if (wanted(hearing, frame)) return { frame, hearing, why: whyReceived(trace, frame, hearing, regional)! };
  throw new Error('find: no one did');
}
const table = ({ heads, rows, decided }: FrameWhy) => ({
  heads,
  rows: rows.map((r) => [r.who, ...r.cells.map((c) => c.text)]),
  wins: rows.map((r) => r.wins),
  decided: decided === null ? null : heads[decided],
});

describe('a rapid receiver', () => {
  const trace = run(
    asMeant(),
    12,
    { kind: 'link-down', at: 3, link: UPLINK },
    { kind: 'link-up', at: 6, link: UPLINK },
  );
  const at = (port: string, info: string) =>
    find(trace, (h, f) => h.port === port && h.info === info && f.vlan === 110 && f.at >= 6_000_000);

  test('takes a lower root path cost over from its neighbour, against what it said itself', () => {
    const { why } = at('ticket-hall:1', 'SuperiorDesignated');
    expect(table(why)).toEqual({
      heads: ['root', 'cost', 'bridge', 'port'],
      rows: [
        ['message', '4096+110·53:21', '2000', '16384+110·53:1a', '8003'],
        ['own vector', '4096+110·53:21', '22000', '61440+110·53:31', '8001'],
      ],
      wins: [true, false],
      decided: 'cost',
    });
    expect(why.sentence).toBe(
      'Superior: its root path cost 2000 is lower than 22000, what it sends on this LAN. Accepted; port roles are selected again.',
    );
  });
  test('does not take a higher one over', () => {
    const { why } = at('quay-a:3', 'InferiorDesignated');
    expect([table(why).decided, table(why).wins]).toEqual(['cost', [false, true]]);
    expect(why.sentence).toMatch(/^Inferior: its root path cost 22000 is higher than 2000, .* Not accepted\.$/);
  });
  test('confirms what is said again, and holds nothing against it', () => {
    const { why } = at('ticket-hall:1', 'RepeatedDesignated');
    expect([why.rows.length, why.decided]).toEqual([1, null]);
    expect(why.sentence).toMatch(/^Repeated/);
  });
  test('believes the port that it heard before, even when its word is worse', () => {
    const lost = run(asMeant(), 10, { kind: 'switch-off', at: 3, switch: 'core-east' });
    const { why } = find(
      lost,
      (h, f) => h.info === 'SuperiorDesignated' && f.at > 3_000_000 && h.held?.whose === 'Received',
    );
    expect(why.decided).not.toBeNull();
    expect(why.sentence).toMatch(/^Superior, although its .* so it replaces that vector\.$/);
  });
  test('the result: roles of its switch at that moment, and what it answered', () => {
    const { frame, hearing } = at('ticket-hall:1', 'SuperiorDesignated');
    const came = consequencesOf(asMeant(), trace, frame, hearing);
    const texts = came.map((c) => c.text.split(',')[0]);
    expect(texts).toContain('ticket-hall 1: designated discarding → root forwarding');
    expect(texts).toContain('ticket-hall 2: root forwarding → alternate discarding');
    const answer = came.find((c) => c.frame !== undefined)!;
    expect(frameAt(trace.frames, answer.frame!)).toMatchObject({ at: hearing.at, vlan: 110 });
  });
});

test('of regions: external and internal cost and the regional root; of instances only the internal ones', () => {
  const design: Design = {
    ...asMeant(),
    mode: 'mstp',
    regions: [{ id: 'r', name: 'quay', revision: 1, map: { '1': '110,120', '2': '140' } }],
  };
  const trace = run(design, 8, {
    kind: 'set',
    at: 3,
    label: 'p',
    edits: [setField('switch', 'quay-b', 'instancePriority.1', 0)],
  });
  const { why } = find(trace, (h) => h.tree === 1 && h.info === 'SuperiorDesignated', true);
  expect(why.about).toBe('instance 1');
  expect([why.heads, table(why).decided]).toEqual([['regional', 'inside', 'bridge', 'port'], 'regional']);
  const cist = find(trace, (h, f) => h.tree === 0 && f.at > 0, true);
  expect(cist.why.heads).toEqual(['root', 'outside', 'regional', 'inside', 'bridge', 'port']);
});

test('a classic bridge answers what is worse than its own word at once', () => {
  const trace = run(
    { ...asMeant(), mode: 'stp' },
    40,
    { kind: 'link-down', at: 3, link: UPLINK },
    { kind: 'link-up', at: 6, link: UPLINK },
  );
  const { why } = find(trace, (h) => h.info === 'answered');
  expect(why.sentence).toMatch(/^Worse: its .* is higher than .* The port is designated and replies at once\.$/);
});

test('a guard that shuts a port says that nothing should come there', () => {
  const trace = run(asMeant(), 8, { kind: 'intruder', at: 3, port: 'ticket-hall:10', priority: 0 });
  const { why } = find(trace, (h) => h.info === 'guarded');
  expect(why).toMatchObject({ rows: [], sentence: 'A BPDU arrived on a guarded port: the BPDU guard shut it down.' });
});

describe('a member of a bundle', () => {
  const member = 'core-west:1';
  const trace = run(
    asMeant(),
    12,
    { kind: 'link-down', at: 3, link: 'core-east:1--core-west:1' },
    { kind: 'link-up', at: 5, link: 'core-east:1--core-west:1' },
  );
  test('holds what the partner says of it against what it says of itself', () => {
    const { why } = find(trace, (h, f) => h.port === member && f.mark === 'lacp' && f.at > 5_000_000);
    expect(why.rows.map((r) => r.who)).toEqual(['received partner information', 'own actor information']);
    expect(why.sentence).toMatch(/receive machine CURRENT/);
  });
  test('goes on to collect and distribute once the partner knows it and is in step', () => {
    const { why } = find(trace, (h, f) => h.port === member && / ATTACHED COLLECTING/.test(h.info) && f.at > 5_000_000);
    expect(why.decided).toBeNull();
    expect(why.sentence).toBe(
      'The partner has the right information on this port and is in sync (receive machine CURRENT); the port is selected for the bundle, and goes from attached to collecting and distributing.',
    );
  });
});
