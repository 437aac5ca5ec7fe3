import { FLAG, encodeBpdu, flagRole } from '../frames';
import { TIMERS, settings, port, regional, both, sent, at, network } from '../../../../tests/support/bridges';
import { createBridge, hearBpdu, setPort, setPortsEnabled, setPriorities, tickBridge } from './bridge';
import type { PortSettings } from './settings';

describe('two bridges on a point-to-point link', () => {
  const pair = (more: Partial<PortSettings> = {}) => {
    const bridges = [createBridge(settings(1), [port(1, more)]), createBridge(settings(2), [port(1, more)])];
    return { bridges, ...network(bridges, [[0, 1, 1, 1]]) };
  };
  test('proposal and agreement open it without a timer', () => {
    const {
      bridges: [a, b],
    } = pair();
    expect([at(a!, 1).role, at(a!, 1).forwarding]).toEqual(['Designated', true]);
    expect([at(b!, 1).role, at(b!, 1).forwarding]).toEqual(['Root', true]);
  });
  test('on a shared link the designated port waits: max age from coming up, then a hello time', () => {
    const {
      bridges: [a],
      wait,
    } = pair({ pointToPoint: false });
    wait(19);
    expect([at(a!, 1).learning, at(a!, 1).forwarding]).toEqual([false, false]);
    wait(1);
    expect([at(a!, 1).learning, at(a!, 1).forwarding]).toEqual([true, false]);
    wait(2);
    expect(at(a!, 1).forwarding).toBe(true);
  });
  test('three hellos that do not come, and what was known is forgotten', () => {
    const { bridges, wait } = pair();
    const [, b] = bridges;
    wait(3);
    const alone = network([b!], []);
    alone.wait(3);
    expect(at(b!, 1).role).toBe('Root');
    alone.wait(4);
    expect([at(b!, 1).role, b!.trees[0]!.rootPort]).toEqual(['Designated', null]);
  });
  test('a better priority that is set takes the root over', () => {
    const { bridges, wait } = pair();
    const [a, b] = bridges;
    setPriorities(b!, [4096]);
    wait(1);
    expect([at(a!, 1).role, at(b!, 1).role]).toEqual(['Root', 'Designated']);
    expect([at(a!, 1).forwarding, at(b!, 1).forwarding]).toEqual([true, true]);
  });
});

describe('a ring of three', () => {
  const CABLES = [
    [0, 1, 1, 1],
    [1, 2, 2, 1],
    [2, 2, 0, 2],
  ] as const;
  const ring = () => {
    const bridges = [1, 2, 3].map((mac) => createBridge(settings(mac), [port(1), port(2)]));
    return { bridges, ...network(bridges, CABLES) };
  };
  test('is cut at one end of the link that is farthest from the root', () => {
    const {
      bridges: [, b, c],
    } = ring();
    expect([at(b!, 2).role, at(c!, 1).role]).toEqual(['Designated', 'Alternate']);
    expect([at(b!, 2).forwarding, at(c!, 1).forwarding]).toEqual([true, false]);
  });
  test('an alternate port takes over at once, and its bridge tells of a topology change', () => {
    const {
      bridges: [, , c],
      light,
    } = ring();
    light(false, CABLES[2]);
    expect([at(c!, 1).role, at(c!, 1).forwarding, at(c!, 1).tcWhile > 0]).toEqual(['Root', true, true]);
  });
  test('a cost that is raised moves the root port; what is cut moves with it', () => {
    const {
      bridges: [, b, c],
      wait,
    } = ring();
    setPort(c!, port(2, { externalCost: 200_000 }));
    wait(1);
    expect([at(c!, 1).role, at(c!, 2).role]).toEqual(['Root', 'Alternate']);
    expect(at(b!, 2).role).toBe('Designated');
  });
});

describe('what a port sends', () => {
  test('hellos every hello time, with role, learning and forwarding told', () => {
    const b = createBridge(settings(1), [port(1, { edge: true })]);
    setPortsEnabled(b, [1], true);
    for (let s = 0; s < 4; s++) tickBridge(b);
    sent(b);
    for (let s = 0; s < 10; s++) tickBridge(b);
    const hellos = sent(b);
    expect(hellos).toHaveLength(5);
    expect(hellos[0]).toMatchObject({ type: 'rst', rootMac: 1, rootPathCost: 0, port: 0x8001, helloTime: 512 });
    expect([flagRole(hellos[0]!.flags), hellos[0]!.flags & (FLAG.learning | FLAG.forwarding)]).toEqual([
      'designated',
      FLAG.learning | FLAG.forwarding,
    ]);
  });
  test('no more than the hold count in a second, and the last news when the second is over', () => {
    const b = createBridge(settings(1), [port(1), port(2)]);
    setPortsEnabled(b, [1, 2], true);
    tickBridge(b);
    sent(b);
    for (let cost = 1; cost <= 20; cost++) setPort(b, port(1, { portId: [0x8001 + ((cost % 2) << 12)] }));
    expect(sent(b, 1).length).toBeLessThanOrEqual(TIMERS.holdCount);
    tickBridge(b);
    expect(sent(b, 1).at(-1)!.port).toBe(0x8001);
  });
});

describe('edge ports', () => {
  test('forward at once, and are none any more as soon as a BPDU is heard', () => {
    const b = createBridge(settings(1), [port(1, { edge: true })]);
    setPortsEnabled(b, [1], true);
    expect([at(b, 1).forwarding, b.ports[0]!.operEdge]).toEqual([true, true]);
    const other = createBridge(settings(2), [port(1)]);
    setPortsEnabled(other, [1], true);
    tickBridge(other);
    hearBpdu(b, 1, other.effects.flatMap((e) => (e.kind === 'send' ? [e.octets] : []))[0]!);
    expect(b.ports[0]!.operEdge).toBe(false);
  });
  test('are detected where no BPDU arrives for three seconds', () => {
    const b = createBridge(settings(1), [port(1, { autoEdge: true })]);
    setPortsEnabled(b, [1], true);
    for (let s = 0; s < 2; s++) tickBridge(b);
    expect(b.ports[0]!.operEdge).toBe(false);
    for (let s = 0; s < 2; s++) tickBridge(b);
    expect([b.ports[0]!.operEdge, at(b, 1).forwarding]).toEqual([true, true]);
  });
});

describe('a classic neighbour', () => {
  const config = encodeBpdu({
    type: 'config',
    flags: 0,
    rootPriority: 32768,
    rootMac: 9,
    rootPathCost: 0,
    bridgePriority: 32768,
    bridgeMac: 9,
    port: 0x8001,
    messageAge: 0,
    maxAge: 20 * 256,
    helloTime: 2 * 256,
    forwardDelay: 15 * 256,
  });
  test('is answered in its own protocol once the migrate time is over, and in ours when it learns it', () => {
    const b = createBridge(settings(1), [port(1)]);
    setPortsEnabled(b, [1], true);
    for (let s = 0; s < 4; s++) tickBridge(b);
    sent(b);
    hearBpdu(b, 1, config);
    for (let s = 0; s < 4; s++) tickBridge(b);
    expect(sent(b).at(-1)!.type).toBe('config');
    const rapid = createBridge(settings(9), [port(1)]);
    setPortsEnabled(rapid, [1], true);
    tickBridge(rapid);
    const octets = rapid.effects.flatMap((e) => (e.kind === 'send' ? [e.octets] : []))[0]!;
    hearBpdu(b, 1, octets);
    for (let s = 0; s < 4; s++) tickBridge(b);
    expect(sent(b).at(-1)!.type).toBe('rst');
  });
  test('makes a port wait for the timers', () => {
    const b = createBridge(settings(1), [port(1)]);
    setPortsEnabled(b, [1], true);
    for (let s = 0; s < 4; s++) tickBridge(b);
    hearBpdu(b, 1, config);
    for (let s = 0; s < 10; s++) tickBridge(b);
    expect(at(b, 1).forwarding).toBe(false);
    for (let s = 0; s < 25; s++) tickBridge(b);
    expect(at(b, 1).forwarding).toBe(true);
  });
});

describe('guards', () => {
  test('a port that may not be root port holds a better root off, and lets its own tree go on', () => {
    const better = createBridge(settings(1, 0), [port(1)]);
    const b = createBridge(settings(2), [port(1, { restrictedRole: true }), port(2)]);
    network([better, b], [[0, 1, 1, 1]]);
    expect([at(b, 1).role, at(b, 1).forwarding, b.trees[0]!.rootPort]).toEqual(['Alternate', false, null]);
  });
  test('a loop guard holds a port that stops hearing', () => {
    const a = createBridge(settings(1), [port(1)]);
    const b = createBridge(settings(2), [port(1, { loopGuard: true })]);
    network([a, b], [[0, 1, 1, 1]]).wait(2);
    network([b], []).wait(8);
    expect([at(b, 1).role, at(b, 1).forwarding, b.ports[0]!.loopInconsistent]).toEqual(['Alternate', false, true]);
  });
  test('a designated neighbour that is worse and forwards all the same is disputed: the port stops', () => {
    const b = createBridge(settings(1), [port(1)]);
    setPortsEnabled(b, [1], true);
    for (let s = 0; s < 31; s++) tickBridge(b);
    expect(at(b, 1).forwarding).toBe(true);
    const deaf = createBridge(settings(2), [port(1)]);
    setPortsEnabled(deaf, [1], true);
    for (let s = 0; s < 33; s++) tickBridge(deaf);
    hearBpdu(b, 1, deaf.effects.flatMap((e) => (e.kind === 'send' ? [e.octets] : [])).at(-1)!);
    expect([at(b, 1).disputed || !at(b, 1).forwarding, at(b, 1).forwarding]).toEqual([true, false]);
  });
});

describe('regions', () => {
  test('inside one, instances have roots and costs of their own, and a hop is counted', () => {
    const a = createBridge(regional(1, 'alpha'), [both(1)]);
    const b = createBridge(regional(2, 'alpha'), [both(1)]);
    setPriorities(b, [32768, 4097]);
    network([a, b], [[0, 1, 1, 1]]).wait(3);
    expect([at(a, 1, 0).role, at(a, 1, 1).role]).toEqual(['Designated', 'Root']);
    expect([at(b, 1, 0).role, at(b, 1, 1).role]).toEqual(['Root', 'Designated']);
    expect(b.trees[0]!.rootTimes.hops).toBe(TIMERS.maxHops - 1);
    expect([b.trees[0]!.rootPriority.externalCost, b.trees[0]!.rootPriority.internalCost]).toEqual([0, 20_000]);
  });
  test('to another region the cost is external, and instances follow at the border: master', () => {
    const a = createBridge(regional(1, 'alpha'), [both(1)]);
    const b = createBridge(regional(2, 'beta'), [both(1)]);
    network([a, b], [[0, 1, 1, 1]]).wait(3);
    expect([at(b, 1, 0).role, at(b, 1, 1).role]).toEqual(['Root', 'Master']);
    expect([b.trees[0]!.rootPriority.externalCost, b.trees[0]!.rootPriority.internalCost]).toEqual([20_000, 0]);
    expect([at(b, 1, 0).forwarding, at(b, 1, 1).forwarding]).toEqual([true, true]);
  });
  test('a rapid bridge is outside of any region', () => {
    const a = createBridge(settings(1), [port(1)]);
    const b = createBridge(regional(2, 'beta'), [both(1)]);
    network([a, b], [[0, 1, 1, 1]]).wait(3);
    expect([b.ports[0]!.rcvdInternal, at(b, 1, 1).role]).toEqual([false, 'Master']);
  });
});
