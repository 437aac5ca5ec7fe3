/** What holds LACPDUs back. */
import { LACP_STATE, encodeLacpdu } from '../frames';
import { LACP_TIMES } from './port';
import { hear, nextTimer, startEnd, tick } from './system';
import { endSettings } from '../../../../tests/support/lacp-ends';

const end1 = startEnd(endSettings(1, { ports: [{ number: 1, priority: 32768, speed: 1000, half: false, up: true }] }));
/** A partner with a key of its own, and with a wrong one for this end. */
const said = (key: number) => ({
  actor: {
    systemPriority: 32768,
    system: 2,
    key,
    portPriority: 32768,
    port: 3,
    state: LACP_STATE.activity | LACP_STATE.aggregation,
  },
  partner: { ...end1.ports[0]!.actor, key },
  collectorMaxDelay: 0,
});

test('a port sends three frames within a second at most, and the next as soon as it may', () => {
  let end = end1;
  const sentAt: number[] = [];
  const note = (now: number, moved: ReturnType<typeof tick>) => {
    end = moved.end;
    for (const { port } of moved.sent) if (port === 1) sentAt.push(now);
  };
  note(0, tick(end, 0));
  // A partner that says something else each time wants an answer each time.
  for (let i = 1; i <= 20; i++) {
    const octets = encodeLacpdu(said(i));
    note(i * 20_000, hear(end, 1, octets, i * 20_000));
  }
  expect(sentAt).toHaveLength(3);
  const next = nextTimer(end, 400_000)!;
  expect(next).toBeLessThanOrEqual(sentAt[0]! + LACP_TIMES.fastPeriodic);
  for (let at = next; sentAt.length < 4; at = nextTimer(end, at)!) note(at, tick(end, at));
  expect(sentAt[3]).toBe(sentAt[0]! + LACP_TIMES.fastPeriodic);
});
