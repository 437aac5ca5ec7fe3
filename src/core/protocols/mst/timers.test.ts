import * as fc from 'fast-check';
import { at, port, portOf, running, seconds, settings } from '../../../../tests/support/bridges';
import { addPort, setPortsEnabled } from './bridge';
import { PortSet } from './port-set';
import { HELD, PORT, PortTimers, TreeTimers, tickPort, timerBank } from './timers';

const NAMES = ['helloWhen', 'mdelayWhile', 'edgeDelayWhile'] as const;
const TREE_NAMES = ['tcWhile', 'fdWhile', 'rcvdInfoWhile', 'rrWhile', 'rbWhile'] as const;

class OpenPort extends PortTimers {
  on(is: boolean): void {
    this.enabled = is ? 1 : 0;
  }
  say(news: number): void {
    this.news = news;
  }
}
class OpenTree extends TreeTimers {
  hold(which: number): void {
    this.held = which;
  }
}

const filled = fc.record({
  on: fc.boolean(),
  timers: fc.array(fc.nat(4), { minLength: 3, maxLength: 3 }),
  trees: fc.array(fc.array(fc.nat(4), { minLength: 5, maxLength: 5 }), { minLength: 2, maxLength: 2 }),
});

test('each timer counts down by itself to zero, and those of other ports and trees are none of its business', () => {
  fc.assert(
    fc.property(fc.array(filled, { minLength: 1, maxLength: 6 }), fc.nat(6), (ports, count) => {
      const bank = timerBank(ports.length, 2);
      const own = ports.map((_, i) => new OpenPort(bank, i));
      const trees = ports.map((_, i) => [0, 1].map((t) => new OpenTree(bank, i, t)));
      ports.forEach((p, i) => {
        own[i]!.on(p.on);
        NAMES.forEach((name, n) => (own[i]![name] = p.timers[n]!));
        p.trees.forEach((values, t) => TREE_NAMES.forEach((name, n) => (trees[i]![t]![name] = values[n]!)));
      });
      for (let s = 0; s < count; s++) ports.forEach((_, i) => tickPort(bank, i));
      ports.forEach((p, i) => {
        const left = (value: number) => (p.on ? Math.max(0, value - count) : value);
        expect(NAMES.map((name) => own[i]![name])).toEqual(p.timers.map(left));
        p.trees.forEach((values, t) => expect(TREE_NAMES.map((name) => trees[i]![t]![name])).toEqual(values.map(left)));
      });
    }),
  );
});

describe('what a second brings', () => {
  const one = () => {
    const bank = timerBank(1, 1);
    const p = new OpenPort(bank, 0);
    p.on(true);
    return { bank, p, tree: new OpenTree(bank, 0, 0) };
  };
  test('nothing while no timer runs out', () => {
    const { bank, tree } = one();
    tree.rcvdInfoWhile = 3;
    expect([tickPort(bank, 0), tickPort(bank, 0)]).toEqual([null, null]);
    expect(tickPort(bank, 0)).toBe('timer');
  });
  test('a hello that is due is no more than that', () => {
    const { bank, p } = one();
    p.helloWhen = 1;
    expect(tickPort(bank, 0)).toBe('hello');
  });
  test('news that were held back may go as the count of BPDUs falls', () => {
    const { bank, p } = one();
    p.txCount = 6;
    expect(tickPort(bank, 0)).toBeNull();
    p.say(1);
    expect([tickPort(bank, 0), p.txCount]).toEqual(['hello', 4]);
  });
  test('what the role starts again at once stands still', () => {
    const { bank, tree } = one();
    tree.fdWhile = tree.rrWhile = tree.rbWhile = tree.tcWhile = 2;
    tree.hold(HELD.fdWhile | HELD.rbWhile);
    tickPort(bank, 0);
    expect([tree.fdWhile, tree.rbWhile, tree.rrWhile, tree.tcWhile]).toEqual([2, 2, 1, 1]);
  });
});

test('a port that is added to a bridge that runs leaves the timers of the others as they are', () => {
  const b = running(settings(1), port(1), port(2));
  seconds(b, 2);
  const before = b.ports.map((p) => [p.helloWhen, p.txCount, at(b, p.number).fdWhile, at(b, p.number).tcWhile]);
  addPort(b, port(7));
  expect(
    b.ports.slice(0, 2).map((p) => [p.helloWhen, p.txCount, at(b, p.number).fdWhile, at(b, p.number).tcWhile]),
  ).toEqual(before);
  setPortsEnabled(b, [7], true);
  seconds(b, 40);
  expect([at(b, 7).role, at(b, 7).forwarding, at(b, 1).forwarding]).toEqual(['Designated', true, true]);
  expect(portOf(b, 7).helloWhen).toBeGreaterThan(0);
});

test('a set of ports holds what was put in and not taken out', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.nat(9), fc.boolean())), (steps) => {
      const set = new PortSet(timerBank(10, 1), PORT.awake);
      const model = new Set<number>();
      for (const [index, put] of steps)
        if (put) {
          set.add(index);
          model.add(index);
        } else expect(set.take(index)).toBe(model.delete(index));
      const found = Array.from({ length: 10 }, (_, i) => i).filter((i) => set.has(i));
      expect(found).toEqual([...model].sort((a, b) => a - b));
      for (const index of model) expect(index >= set.from && index <= set.to).toBe(true);
    }),
  );
});
