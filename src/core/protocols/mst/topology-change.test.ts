import { FLAG, NOTIFICATION } from '../frames';
import {
  at,
  flushed,
  port,
  portOf,
  running,
  seconds,
  sent,
  settings,
  tell,
  word,
} from '../../../../tests/support/bridges';
import { setPort, setPortsEnabled } from './bridge';

const root = word({ flags: 0x0c | FLAG.proposal });
/** A bridge with a root port, and two designated ports whose neighbours have agreed. */
function standing(more = {}) {
  const b = running(settings(2), port(1), port(2, more), port(3));
  tell(b, 1, root);
  for (const [number, mac] of [
    [2, 40],
    [3, 41],
  ] as const)
    tell(
      b,
      number,
      word({ flags: 0x08 | FLAG.agreement, rootPathCost: 40_000, bridgePriority: 32768, bridgeMac: mac }),
    );
  for (let s = 0; s < 10; s++) {
    tell(b, 1, word());
    seconds(b, 1);
  }
  b.effects.length = 0;
  return b;
}
const change = word({ flags: 0x0c | FLAG.topologyChange });
const tells = (b: ReturnType<typeof standing>, number: number) => at(b, number).tcWhile > 0;

test('a port that starts to forward is one: it is signalled for a hello time and a second', () => {
  const b = standing();
  expect([tells(b, 1), tells(b, 2)]).toEqual([false, false]);
  setPortsEnabled(b, [2], false);
  setPortsEnabled(b, [2], true);
  tell(b, 2, word({ flags: 0x08 | FLAG.agreement, rootPathCost: 40_000, bridgePriority: 32768, bridgeMac: 40 }));
  expect([tells(b, 1), tells(b, 2), tells(b, 3)]).toEqual([true, true, true]);
  expect(sent(b, 1).some((bpdu) => bpdu.flags & FLAG.topologyChange)).toBe(true);
  seconds(b, 3);
  expect([tells(b, 1), tells(b, 2), tells(b, 3)]).toEqual([false, false, false]);
});

test('an edge port that opens is none', () => {
  const b = standing({ edge: true });
  setPortsEnabled(b, [3], false);
  b.effects.length = 0;
  setPort(b, port(3, { edge: true }));
  setPortsEnabled(b, [3], true);
  expect(at(b, 3).forwarding).toBe(true);
  expect([tells(b, 1), flushed(b)]).toEqual([false, []]);
});

describe('one that is heard of', () => {
  test('is passed on, and MAC tables are flushed at every port but the receiving one', () => {
    const b = standing();
    tell(b, 1, change);
    expect(flushed(b).sort()).toEqual([2, 3]);
    expect([tells(b, 1), tells(b, 2), tells(b, 3)]).toEqual([false, true, true]);
  });
  test('again while it is still signalled, flushes again and is signalled no longer', () => {
    const b = standing();
    tell(b, 1, change);
    seconds(b, 1);
    const left = at(b, 2).tcWhile;
    b.effects.length = 0;
    tell(b, 1, change);
    expect(flushed(b).sort()).toEqual([2, 3]);
    expect(at(b, 2).tcWhile).toBe(left);
  });
  test('goes no further from a port whose notices are not to be trusted', () => {
    const b = standing({ restrictedTcn: true });
    tell(
      b,
      2,
      word({
        flags: 0x08 | FLAG.agreement | FLAG.topologyChange,
        rootPathCost: 40_000,
        bridgePriority: 32768,
        bridgeMac: 40,
      }),
    );
    expect([flushed(b), tells(b, 1)]).toEqual([[], false]);
  });
  test('does nothing at a port that is cut', () => {
    const b = standing();
    tell(b, 3, word({ rootPathCost: 1000, bridgeMac: 10 }));
    expect(at(b, 3).role).toBe('Alternate');
    b.effects.length = 0;
    tell(b, 1, change);
    expect([flushed(b), tells(b, 3)]).toEqual([[2], false]);
  });
});

describe('a classic neighbour', () => {
  test('that notifies is acknowledged, and the change is passed on', () => {
    const b = standing();
    seconds(b, 4);
    tell(b, 2, word({ type: 'config', flags: 0, rootPathCost: 40_000, bridgePriority: 32768, bridgeMac: 40 }));
    sent(b);
    tell(b, 2, NOTIFICATION);
    seconds(b, 2);
    const answers = sent(b, 2);
    expect(answers.some((bpdu) => bpdu.type === 'config' && bpdu.flags & FLAG.acknowledgement)).toBe(true);
    expect(tells(b, 1)).toBe(true);
  });
  test('at the root port is notified until it acknowledges', () => {
    const b = running(settings(2), port(1), port(2));
    seconds(b, 4);
    const classic = word({ type: 'config', flags: 0 });
    for (let s = 0; s < 40; s++) {
      tell(b, 1, classic);
      seconds(b, 1);
    }
    expect(portOf(b, 1).sendRSTP).toBe(false);
    sent(b);
    setPortsEnabled(b, [2], false);
    setPortsEnabled(b, [2], true);
    for (let s = 0; s < 33; s++) {
      tell(b, 1, classic);
      seconds(b, 1);
    }
    expect(sent(b, 1).some((bpdu) => bpdu.type === 'notification')).toBe(true);
    tell(b, 1, word({ type: 'config', flags: FLAG.acknowledgement }));
    expect(at(b, 1).tcWhile).toBe(0);
  });
});

test('a bridge that knows less tells of none, however often it said the same before', () => {
  const b = standing();
  const less = { rootPathCost: 40_000, bridgePriority: 32768, bridgeMac: 40 };
  for (let i = 0; i < 3; i++) tell(b, 2, word({ flags: 0x0c, ...less }));
  tell(b, 2, word({ flags: 0x0c | FLAG.topologyChange, ...less }));
  expect([tells(b, 1), tells(b, 3), flushed(b)]).toEqual([false, false, []]);
});

test('one that repeats what it said is believed to tell of one', () => {
  const b = standing();
  for (let i = 0; i < 3; i++) tell(b, 1, word());
  tell(b, 1, change);
  expect([tells(b, 2), tells(b, 3)]).toEqual([true, true]);
});
