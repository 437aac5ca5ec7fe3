import { FLAG } from '../frames';
import {
  at,
  flushed,
  network,
  port,
  running,
  seconds,
  sent,
  settings,
  tell,
  word,
} from '../../../../tests/support/bridges';
import { createBridge, setPortsEnabled } from './bridge';

const proposal = word({ flags: 0x0c | FLAG.proposal });

describe('a proposal at the root port', () => {
  test('is answered with an agreement once all others stand, and the port opens without a timer', () => {
    const b = running(settings(2), port(1), port(2));
    tell(b, 1, proposal);
    expect([at(b, 1).role, at(b, 1).forwarding]).toEqual(['Root', true]);
    expect(sent(b, 1).at(-1)!.flags & FLAG.agreement).toBeTruthy();
  });
  /** A root port and a designated port, both open, the second by its timers. */
  const open = () => {
    const b = running(settings(2), port(1), port(2));
    for (let s = 0; s < 40; s++) {
      tell(b, 1, word());
      seconds(b, 1);
    }
    expect([at(b, 1).forwarding, at(b, 2).forwarding]).toEqual([true, true]);
    return b;
  };
  test('of a worse way cuts designated ports: what their neighbours agreed to holds no longer', () => {
    const b = open();
    tell(b, 1, { ...proposal, rootPathCost: 50_000 });
    expect([at(b, 1).forwarding, at(b, 2).forwarding, at(b, 2).proposing]).toEqual([true, false, true]);
  });
  test('of a better root leaves them: the agreement holds for what is better as well', () => {
    const b = open();
    tell(b, 1, { ...proposal, rootPriority: 0, rootMac: 8 });
    expect([at(b, 1).forwarding, at(b, 2).forwarding]).toEqual([true, true]);
  });
  test('leaves edge ports open', () => {
    const b = running(settings(2), port(1), port(2, { edge: true }));
    tell(b, 1, proposal);
    expect([at(b, 1).forwarding, at(b, 2).forwarding]).toEqual([true, true]);
  });
});

test('an alternate port agrees to a proposal and stays cut', () => {
  const b = running(settings(2), port(1), port(2));
  tell(b, 1, word());
  sent(b);
  tell(b, 2, word({ flags: 0x0c | FLAG.proposal, rootPathCost: 1000, bridgeMac: 10, port: 0x8005 }));
  expect([at(b, 2).role, at(b, 2).forwarding]).toEqual(['Alternate', false]);
  expect(sent(b, 2).some((bpdu) => (bpdu.flags & FLAG.agreement) !== 0)).toBe(true);
});

describe('a designated port', () => {
  test('proposes, and forwards by its timers where no agreement arrives', () => {
    const b = createBridge(settings(2), [port(1)]);
    setPortsEnabled(b, [1], true);
    expect(sent(b)[0]!.flags & FLAG.proposal).toBeTruthy();
    seconds(b, 20);
    expect([at(b, 1).learning, at(b, 1).forwarding]).toEqual([true, false]);
    seconds(b, 15);
    expect(at(b, 1).forwarding).toBe(true);
  });
  test('that was root port a moment ago stops before the new root port opens', () => {
    const b = running(settings(2), port(1), port(2));
    for (let s = 0; s < 40; s++) {
      tell(b, 1, word({ rootPathCost: 10 }));
      tell(b, 2, word({ rootPathCost: 20, bridgeMac: 10 }));
      seconds(b, 1);
    }
    const states = () => [1, 2].map((n) => [at(b, n).role, at(b, n).forwarding]);
    expect(states()).toEqual([
      ['Root', true],
      ['Alternate', false],
    ]);
    b.effects.length = 0;
    tell(b, 2, word({ rootPriority: 0, rootMac: 8, bridgePriority: 0, bridgeMac: 8 }));
    expect(states()).toEqual([
      ['Designated', false],
      ['Root', true],
    ]);
  });
});

test('an alternate port takes over in the same moment, and tables are flushed at the other ports', () => {
  const b = running(settings(2), port(1), port(2), port(3));
  tell(b, 1, proposal);
  tell(b, 2, word({ rootPathCost: 1000, bridgeMac: 10 }));
  tell(b, 3, word({ flags: 0x08 | FLAG.agreement, rootPathCost: 30_000, bridgeMac: 40 }));
  b.effects.length = 0;
  setPortsEnabled(b, [1], false);
  expect([at(b, 2).role, at(b, 2).forwarding]).toEqual(['Root', true]);
  expect(flushed(b)).toContain(3);
  expect(flushed(b)).not.toContain(2);
});

test('a backup port is cut as long as its own switch speaks for the LAN, and takes over after the timers', () => {
  const b = running(settings(2), port(1), port(2));
  const own = { rootMac: 2, rootPriority: 32768, bridgeMac: 2, bridgePriority: 32768 };
  for (let s = 0; s < 40; s++) {
    tell(b, 2, word({ ...own, port: 0x8001 }));
    seconds(b, 1);
  }
  expect([at(b, 2).role, at(b, 2).forwarding]).toEqual(['Backup', false]);
  seconds(b, 8);
  expect([at(b, 2).role, at(b, 2).forwarding]).toEqual(['Designated', false]);
  seconds(b, 40);
  expect(at(b, 2).forwarding).toBe(true);
});

test('three in a row open link by link without a timer, and one end of a ring stays cut', () => {
  const bridges = [1, 2, 3].map((mac) => createBridge(settings(mac), [port(1), port(2)]));
  network(bridges, [
    [0, 1, 1, 1],
    [1, 2, 2, 1],
    [2, 2, 0, 2],
  ]);
  const open = bridges.flatMap((b, i) => b.ports.flatMap((p) => (p.trees[0]!.forwarding ? [`${i}.${p.number}`] : [])));
  expect(open).toEqual(['0.1', '0.2', '1.1', '1.2', '2.2']);
});
