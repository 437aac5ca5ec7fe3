import fc from 'fast-check';
import { EventQueue } from './scheduler';

test('what is due comes out by time, and at one time in the order in which it went in, however it went in', () => {
  const step = fc.record({ time: fc.nat(20), line: fc.boolean(), take: fc.nat(3) });
  fc.assert(
    fc.property(fc.array(step, { maxLength: 200 }), (steps) => {
      const queue = new EventQueue<number>();
      let waiting: { time: number; order: number }[] = [];
      const take = () => {
        const [first] = [...waiting].sort((a, b) => a.time - b.time || a.order - b.order);
        expect(queue.next).toBe(first!.time);
        expect(queue.pop()).toBe(first!.order);
        waiting = waiting.filter((w) => w !== first);
      };
      steps.forEach(({ time, line, take: count }, order) => {
        if (line) queue.append(time, order);
        else queue.push(time, order);
        waiting.push({ time, order });
        for (let i = 0; i < count && waiting.length > 0; i++) take();
        expect(queue.size).toBe(waiting.length);
      });
      while (waiting.length > 0) take();
      expect([queue.size, queue.next]).toEqual([0, Infinity]);
    }),
  );
});
