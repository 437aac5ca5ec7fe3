import { ago } from './Ago';

const now = Date.UTC(2026, 5, 15, 12);
test.each([
  [5_000, 'just now'],
  [60_000, '1 minute ago'],
  [3 * 3_600_000, '3 hours ago'],
  [2 * 86_400_000, '2 days ago'],
  [40 * 86_400_000, '2026-05-06'],
])('%i ms back is told as %s', (back, words) => expect(ago(now - back, now)).toBe(words));
