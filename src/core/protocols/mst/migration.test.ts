import { at, port, portOf, running, seconds, sent, settings, tell, word } from '../../../../tests/support/bridges';
import { checkMigration, createBridge, setPortsEnabled } from './bridge';

const config = word({ type: 'config', flags: 0 });

describe('which protocol a port speaks', () => {
  test('the rapid one for the migrate time, whatever it hears', () => {
    const b = createBridge(settings(2), [port(1)]);
    setPortsEnabled(b, [1], true);
    tell(b, 1, config);
    expect(portOf(b, 1).sendRSTP).toBe(true);
    seconds(b, 3);
    tell(b, 1, config);
    expect([portOf(b, 1).sendRSTP, portOf(b, 1).ppm]).toEqual([false, 'SELECTING_STP']);
  });
  test('the classic one until a rapid BPDU comes after the migrate time', () => {
    const b = running(settings(2), port(1));
    seconds(b, 3);
    tell(b, 1, config);
    tell(b, 1, word());
    expect(portOf(b, 1).sendRSTP).toBe(false);
    seconds(b, 4);
    tell(b, 1, word());
    expect([portOf(b, 1).sendRSTP, portOf(b, 1).ppm]).toEqual([true, 'CHECKING_RSTP']);
  });
  test('the rapid one again after it was down', () => {
    const b = running(settings(2), port(1));
    seconds(b, 3);
    tell(b, 1, config);
    setPortsEnabled(b, [1], false);
    setPortsEnabled(b, [1], true);
    expect(portOf(b, 1).sendRSTP).toBe(true);
  });
  test('and where it was asked to look again', () => {
    const b = running(settings(2), port(1));
    seconds(b, 3);
    tell(b, 1, config);
    checkMigration(b, 1);
    expect([portOf(b, 1).sendRSTP, portOf(b, 1).mcheck]).toEqual([true, false]);
  });
  test('no agreement is asked of a classic neighbour: it opens by the longer timers', () => {
    const b = running(settings(2), port(1));
    seconds(b, 3);
    tell(
      b,
      1,
      word({ type: 'config', flags: 0, rootPriority: 61440, rootMac: 60, bridgePriority: 61440, bridgeMac: 60 }),
    );
    sent(b);
    seconds(b, 25);
    expect(sent(b).every((bpdu) => bpdu.type === 'config')).toBe(true);
    expect(at(b, 1).forwarding).toBe(false);
    seconds(b, 15);
    expect(at(b, 1).forwarding).toBe(true);
  });
});

describe('whether no one but end devices is there', () => {
  test('as set: an edge port, until a BPDU is heard, and again when the port comes up again', () => {
    const b = running(settings(2), port(1, { edge: true }));
    expect(portOf(b, 1).operEdge).toBe(true);
    tell(b, 1, word());
    expect(portOf(b, 1).operEdge).toBe(false);
    setPortsEnabled(b, [1], false);
    expect(portOf(b, 1).operEdge).toBe(true);
  });
  test('by itself after three seconds of silence while it proposes', () => {
    const b = createBridge(settings(2), [port(1, { autoEdge: true })]);
    setPortsEnabled(b, [1], true);
    seconds(b, 2);
    expect(portOf(b, 1).operEdge).toBe(false);
    seconds(b, 1);
    expect([portOf(b, 1).operEdge, at(b, 1).forwarding]).toEqual([true, true]);
  });
  test('never where it is neither set nor to be found out', () => {
    const b = running(settings(2), port(1));
    seconds(b, 30);
    expect(portOf(b, 1).operEdge).toBe(false);
  });
});

describe('how often it speaks', () => {
  test('a hello each hello time, whatever happens in between', () => {
    const b = running(settings(2), port(1));
    seconds(b, 39);
    sent(b);
    seconds(b, 20);
    expect(sent(b)).toHaveLength(10);
  });
  test('a root port says no hellos but while it tells of a change', () => {
    const b = running(settings(2), port(1));
    for (let s = 0; s < 10; s++) {
      tell(b, 1, word({ flags: 0x0e }));
      seconds(b, 1);
    }
    sent(b);
    for (let s = 0; s < 10; s++) {
      tell(b, 1, word());
      seconds(b, 1);
    }
    expect(sent(b)).toEqual([]);
  });
  test('no more BPDUs in a second than the hold count', () => {
    const b = running(
      settings(2, 32768, { timers: { helloTime: 2, maxAge: 20, forwardDelay: 15, holdCount: 3, maxHops: 20 } }),
      port(1),
      port(2),
    );
    seconds(b, 5);
    sent(b);
    for (let cost = 1; cost < 9; cost++) tell(b, 1, word({ rootPathCost: cost * 1000 }));
    expect(sent(b, 2).length).toBeLessThanOrEqual(3);
    seconds(b, 1);
    expect(sent(b, 2).at(-1)!.rootPathCost).toBe(28_000);
  });
});
