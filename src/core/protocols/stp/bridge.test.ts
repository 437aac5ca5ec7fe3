import { rootGuarded } from './procedures';
import { FLAG, decodeBpdu, encodeBpdu } from '../frames';
import type { Bpdu } from '../frames';
import { createStpBridge, setStpPort, setStpPortEnabled, setStpPriority } from './bridge';
import { hearStpBpdu } from './receive';
import { nextStpTimer, wakeStpBridge } from './timers';
import type { StpBridge, StpPortSettings, StpSettings } from './variables';

const SECOND = 1_000_000;
const settings = (mac: number, priority = 32768): StpSettings => ({
  mac,
  priority,
  helloTime: 2,
  maxAge: 20,
  forwardDelay: 15,
});
const port = (number: number, more: Partial<StpPortSettings> = {}): StpPortSettings => ({
  number,
  portId: 0x8000 | number,
  pathCost: 19,
  edge: false,
  ...more,
});
/** What a bridge of a MAC says as root, or at a cost from another root. */
const config = (mac: number, more: Partial<Bpdu> = {}): Uint8Array =>
  encodeBpdu({
    type: 'config',
    flags: 0,
    rootPriority: 32768,
    rootMac: mac,
    rootPathCost: 0,
    bridgePriority: 32768,
    bridgeMac: mac,
    port: 0x8001,
    messageAge: 0,
    maxAge: 20 * 256,
    helloTime: 2 * 256,
    forwardDelay: 15 * 256,
    ...more,
  });
const NOTIFY = encodeBpdu({ ...decodeBpdu(config(1))!, type: 'notification' });

/** A bridge with a clock: woken at each of its timers on the way to a moment. */
function clocked(mac: number, ports: readonly StpPortSettings[], priority?: number) {
  const b = createStpBridge(settings(mac, priority), ports, 0);
  let now = 0;
  const until = (seconds: number) => {
    for (let next = nextStpTimer(b); next !== null && next <= seconds * SECOND; next = nextStpTimer(b))
      wakeStpBridge(b, (now = next));
    now = seconds * SECOND;
  };
  const sent = (number?: number): Bpdu[] => {
    const found = b.effects.flatMap((e) =>
      e.kind === 'send' && (number === undefined || e.port === number) ? [decodeBpdu(e.octets)!] : [],
    );
    b.effects.length = 0;
    return found;
  };
  const hear = (number: number, octets: Uint8Array) => hearStpBpdu(b, number, octets, now);
  for (const { number } of ports) setStpPortEnabled(b, number, true, 0);
  return { b, until, sent, hear, at: () => now };
}
const state = (b: StpBridge, number: number) => [b.byNumber[number]!.role, b.byNumber[number]!.state];

describe('a bridge that receives nothing', () => {
  test('is root, listens and learns a forward delay each, and says so every hello time', () => {
    const { b, until, sent } = clocked(5, [port(1)]);
    expect(state(b, 1)).toEqual(['designated', 'listening']);
    until(14.9);
    expect(state(b, 1)[1]).toBe('listening');
    until(15);
    expect(state(b, 1)[1]).toBe('learning');
    sent();
    until(30);
    expect(state(b, 1)[1]).toBe('forwarding');
    expect(sent().map((s) => [s.type, s.rootMac, s.rootPathCost])).toHaveLength(8);
  });
  test('an edge port forwards at once', () => {
    const { b } = clocked(5, [port(1, { edge: true })]);
    expect(state(b, 1)).toEqual(['designated', 'forwarding']);
  });
  test('a port that goes down and comes up restarts', () => {
    const { b, until } = clocked(5, [port(1)]);
    until(40);
    setStpPortEnabled(b, 1, false, 40 * SECOND);
    expect(state(b, 1)).toEqual(['disabled', 'disabled']);
    setStpPortEnabled(b, 1, true, 41 * SECOND);
    expect(state(b, 1)).toEqual(['designated', 'listening']);
  });
});

describe('a bridge that hears a better root', () => {
  test('takes the port for its root port, adds its cost, and passes the message on, a second older', () => {
    const { b, sent, hear, until } = clocked(5, [port(1), port(2)]);
    hear(1, config(1));
    expect([state(b, 1)[0], b.rootPathCost, b.designatedRootMac]).toEqual(['root', 19, 1]);
    until(3.5);
    sent();
    hear(1, config(1, { messageAge: 256 }));
    expect(sent(2)).toMatchObject([{ rootMac: 1, rootPathCost: 19, bridgeMac: 5, messageAge: 512 }]);
  });
  test('cuts the second port to it, which opens two forward delays after the first is lost', () => {
    const { b, until, hear, at } = clocked(5, [port(1), port(2, { pathCost: 100 })]);
    const hello = () => {
      hear(1, config(1));
      hear(2, config(1, { port: 0x8002 }));
    };
    for (let s = 0; s <= 40; s += 2) {
      until(s);
      hello();
    }
    expect([state(b, 1), state(b, 2)]).toEqual([
      ['root', 'forwarding'],
      ['blocked', 'blocking'],
    ]);
    setStpPortEnabled(b, 1, false, at());
    expect(state(b, 2)).toEqual(['root', 'listening']);
    for (let s = 42; s <= 70; s += 2) {
      until(s);
      hear(2, config(1, { port: 0x8002 }));
    }
    expect(state(b, 2)).toEqual(['root', 'forwarding']);
  });
  test('believes it for max age less the age of the message, then is root again', () => {
    const { b, until, hear } = clocked(5, [port(1)]);
    hear(1, config(1, { messageAge: 5 * 256, rootPathCost: 38, bridgeMac: 3 }));
    until(14.9);
    expect(state(b, 1)[0]).toBe('root');
    until(15);
    expect([state(b, 1)[0], b.designatedRootMac]).toEqual(['designated', 5]);
  });
  test('takes no notice of a worse message from its own designated bridge until the old one ages out', () => {
    const { b, hear } = clocked(5, [port(1)]);
    hear(1, config(1, { bridgeMac: 3, rootPathCost: 19 }));
    hear(1, config(3));
    expect(b.designatedRootMac).toBe(1);
  });
  test('answers a worse message where it is designated', () => {
    const { sent, hear, until } = clocked(5, [port(1)]);
    until(3);
    sent();
    hear(1, config(9));
    expect(sent().map((s) => s.rootMac)).toEqual([5]);
  });
});

describe('the hold timer', () => {
  test('lets one configuration message a second out of a port, and the last news after it', () => {
    const { sent, hear, until } = clocked(5, [port(1)]);
    until(2.5);
    sent();
    for (let i = 0; i < 10; i++) hear(1, config(9));
    expect(sent(1)).toHaveLength(0);
    until(3.2);
    expect(sent(1)).toHaveLength(1);
  });
});

describe('topology changes', () => {
  test('are notified towards the root until it acknowledges', () => {
    const { b, until, hear, sent } = clocked(5, [port(1), port(2)]);
    for (let s = 0; s <= 28; s += 2) {
      until(s);
      hear(1, config(1));
    }
    sent();
    until(32);
    hear(1, config(1));
    expect(sent(1).map((s) => s.type)).toContain('notification');
    hear(1, config(1, { flags: FLAG.acknowledgement }));
    sent();
    until(36);
    expect(b.topologyChangeDetected).toBe(false);
    expect(sent(1).map((s) => s.type)).not.toContain('notification');
  });
  test('are acknowledged by the designated port, and flagged by the root for max age and forward delay', () => {
    const { b, until, hear, sent } = clocked(1, [port(1)]);
    until(100);
    sent();
    hear(1, NOTIFY);
    until(102);
    const [first] = sent(1);
    expect(first!.flags & FLAG.acknowledgement).toBeTruthy();
    until(134);
    expect(sent(1).every((s) => s.flags & FLAG.topologyChange)).toBe(true);
    until(140);
    expect(b.topologyChange).toBe(false);
    expect(sent(1).at(-1)!.flags & FLAG.topologyChange).toBe(0);
  });
  test('shorten the ageing of tables where the root tells of them', () => {
    const { b, hear } = clocked(5, [port(1)]);
    hear(1, config(1));
    b.effects.length = 0;
    hear(1, config(1, { flags: FLAG.topologyChange }));
    expect(b.effects.filter((e) => e.kind === 'ageing')).toEqual([{ kind: 'ageing', short: true }]);
  });
});

describe('settings that change', () => {
  test('a priority that is set makes it root, and it says so', () => {
    const { b, hear, sent, until } = clocked(5, [port(1)]);
    hear(1, config(1));
    until(1.5);
    sent();
    setStpPriority(b, 4096, 1.5 * SECOND);
    expect([b.rootPort, state(b, 1)[0]]).toEqual([null, 'designated']);
    expect(sent(1)[0]).toMatchObject({ rootPriority: 4096, rootMac: 5 });
  });
  test('a cost that is set moves the root port', () => {
    const { b, hear } = clocked(5, [port(1), port(2)]);
    hear(1, config(1));
    hear(2, config(1, { port: 0x8002 }));
    setStpPort(b, port(1, { pathCost: 100 }), 0);
    expect([state(b, 1)[0], state(b, 2)[0]]).toEqual(['blocked', 'root']);
  });
});

describe('guards', () => {
  test('a root guard holds the port while the claim lasts, and lets it go when it ages out', () => {
    const { b, hear, until } = clocked(5, [port(1, { rootGuard: true })]);
    until(40);
    hear(1, config(1));
    expect([rootGuarded(b, b.byNumber[1]!), state(b, 1)[1], b.rootPort]).toEqual([true, 'blocking', null]);
    until(61);
    expect([rootGuarded(b, b.byNumber[1]!), state(b, 1)[0]]).toEqual([false, 'designated']);
  });
  test('a loop guard holds a port that stops hearing, until it hears again', () => {
    const { b, hear, until } = clocked(5, [port(1, { loopGuard: true })]);
    hear(1, config(1));
    until(21);
    expect([b.byNumber[1]!.held, state(b, 1)[1]]).toEqual([true, 'blocking']);
    hear(1, config(1));
    expect([b.byNumber[1]!.held, state(b, 1)[0]]).toEqual([false, 'root']);
  });
});

test('BPDUs of the rapid protocol are not understood', () => {
  const { b, hear } = clocked(5, [port(1)]);
  hear(1, encodeBpdu({ ...decodeBpdu(config(1))!, type: 'rst' }));
  expect(b.designatedRootMac).toBe(5);
});
