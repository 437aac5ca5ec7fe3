/** Numbers, counts and times as people read them: one place for separators, plurals and units. */
import { SECOND } from './time';

const NUMBER = new Intl.NumberFormat('en', { maximumFractionDigits: 0 });
const GROUP = /,/g;
const NO_BREAK = '\u00a0';

/** Numbers formatted before: the same costs turn up in every sentence of a design. */
const known = new Map<number, string>();
const MOST_KNOWN = 4096;

/** `20 000`: groups of three digits, kept on one line. */
export function grouped(value: number): string {
  const before = known.get(value);
  if (before !== undefined) return before;
  const text = NUMBER.format(value).replace(GROUP, NO_BREAK);
  if (known.size < MOST_KNOWN) known.set(value, text);
  return text;
}

/** `1 port`, `2 ports`, `1 000 switches`. */
export const count = (n: number, one: string, many = `${one}s`): string => `${grouped(n)} ${n === 1 ? one : many}`;

/** `1 more port`, `3 more ports`: what a shortened list leaves out. */
export const more = (n: number, one: string, many = `${one}s`): string => `${grouped(n)} more ${n === 1 ? one : many}`;

/** Names up to which all are said. */
const MOST_NAMES = 3;

/** `a, b, c`; of more `a, b and 3 more`. */
export const someNames = (names: readonly string[]): string =>
  names.length <= MOST_NAMES ? names.join(', ') : `${names.slice(0, 2).join(', ')} and ${names.length - 2} more`;

/** `100 Mb/s`, `2.5 Gb/s`: a rate given in Mb/s. */
export const rateWords = (mbps: number): string => (mbps < 1000 ? `${mbps} Mb/s` : `${mbps / 1000} Gb/s`);

/** `5.000 s`: a moment of a run, in microseconds from its start. */
export const seconds = (at: number): string => `${(at / SECOND).toFixed(3)} s`;

/** `12 ms`, `30.0 s`: how long something lasts, in microseconds. */
export function lasting(micros: number): string {
  if (micros < 1000) return `${micros} µs`;
  if (micros < SECOND) return `${(micros / 1000).toFixed(micros < 10_000 ? 1 : 0)} ms`;
  return `${(micros / SECOND).toFixed(1)} s`;
}

const RELATIVE = new Intl.RelativeTimeFormat('en');
const DAY = 86_400_000;
const UNITS = [
  [DAY, 'day'],
  [3_600_000, 'hour'],
  [60_000, 'minute'],
] as const;

/** `just now`, `2 hours ago`; after a month the date. Both in milliseconds since 1970. */
export function ago(at: number, now: number): string {
  const passed = now - at;
  if (passed > 30 * DAY) return new Date(at).toISOString().slice(0, 10);
  for (const [size, unit] of UNITS) if (passed >= size) return RELATIVE.format(-Math.floor(passed / size), unit);
  return 'just now';
}
