import { around, broughtIn, changesOf } from './stretch';

test('moments of all lanes and of the script, each once, in order', () => {
  const lane = (...times: number[]) => ({ spans: times.map((at) => ({ at })) });
  const trace = {
    ports: [lane(0, 5)],
    contacts: [lane(0, 7)],
    roots: [lane(0, 5)],
    happenings: [
      { kind: 'script', at: 3 },
      { kind: 'flush', at: 4 },
    ],
  };
  expect(changesOf(trace as never)).toEqual([0, 3, 5, 7]);
});

test('a tenth of a second stays within the run', () => {
  expect(around(10, 1_000_000)).toEqual({ from: 0, to: 100_000 });
  expect(around(500_000, 1_000_000)).toEqual({ from: 450_000, to: 550_000 });
  expect(around(990_000, 1_000_000)).toEqual({ from: 940_000, to: 1_000_000 });
});

test('a moment out of sight is brought in, at the same zoom', () => {
  expect(broughtIn(null, 7)).toBeNull();
  const shown = { from: 100, to: 200 };
  expect(broughtIn(shown, 150)).toBe(shown);
  expect(broughtIn(shown, 500)).toEqual({ from: 450, to: 550 });
  expect(broughtIn(shown, 10)).toEqual({ from: 0, to: 100 });
});
