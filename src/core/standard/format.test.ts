import { ago, count, grouped, lasting, more, seconds } from './format';

test('digits stand in groups of three that no line break parts', () => {
  expect([0, 999, 1000, 20_000, 200_000_000].map(grouped)).toEqual([
    '0',
    '999',
    '1\u00a0000',
    '20\u00a0000',
    '200\u00a0000\u00a0000',
  ]);
});

test('a count has the right plural', () => {
  expect([count(1, 'port'), count(0, 'port'), count(2, 'switch', 'switches'), count(1200, 'port')]).toEqual([
    '1 port',
    '0 ports',
    '2 switches',
    '1\u00a0200 ports',
  ]);
});

test('what a list leaves out has the right plural too', () => {
  expect([more(1, 'port'), more(3, 'port'), more(1, 'switch', 'switches')]).toEqual([
    '1 more port',
    '3 more ports',
    '1 more switch',
  ]);
});

test('durations have the unit that fits', () => {
  expect([7, 1500, 12_000, 30_000_000].map(lasting)).toEqual(['7 µs', '1.5 ms', '12 ms', '30.0 s']);
  expect(seconds(5_000_000)).toBe('5.000 s');
});

test('how long ago, and from a month on the date', () => {
  const now = Date.UTC(2026, 10, 28, 12);
  const passed = [20_000, 60_000, 120_000, 3_600_000, 7_200_000, 86_400_000, 3 * 86_400_000, 40 * 86_400_000];
  expect(passed.map((ms) => ago(now - ms, now))).toEqual([
    'just now',
    '1 minute ago',
    '2 minutes ago',
    '1 hour ago',
    '2 hours ago',
    '1 day ago',
    '3 days ago',
    '2026-10-19',
  ]);
});
