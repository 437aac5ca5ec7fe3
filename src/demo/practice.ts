/** Networks made at random, to work out by hand. */
import type { Design } from '../core/design';
import { DesignDraft } from './build';

export const PRACTICE_KINDS = ['plain', 'address', 'port', 'costs', 'instances'] as const;
export type PracticeKind = (typeof PRACTICE_KINDS)[number];

export const PRACTICE_WORDS: Record<PracticeKind, string> = {
  plain: 'priorities that differ',
  address: 'ties by MAC address',
  port: 'ties by port',
  costs: 'unlike costs',
  instances: 'instances',
};

export const PRACTICE_SIZE = { min: 3, max: 10 } as const;

export interface Exercise {
  /** Switches, 3 to 10. */
  readonly switches: number;
  readonly kind: PracticeKind;
  /** The same number gives the same network. */
  readonly seed: number;
}

/** Begins the identifiers of switches, so that no other design is taken for an exercise. */
const PREFIX = 'practice-';
export const isPractice = ({ switches }: Pick<Design, 'switches'>): boolean =>
  switches.length > 0 && switches.every((s) => s.id.startsWith(PREFIX));

/** Even chances from a seed (mulberry32). */
function chances(seed: number): (below: number) => number {
  let state = seed >>> 0;
  return (below) => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return Math.floor((((t ^ (t >>> 14)) >>> 0) / 4294967296) * below);
  };
}

const SPEEDS = [100, 1000, 10000];
const PRIORITIES = [8192, 12288, 16384, 20480, 24576, 28672];
const LETTERS = 'ABCDEFGHJK';

/** Pairs of switches that are cabled: one way from each to those before it, and a few cables more, some of them in parallel. */
function pairsOf(count: number, kind: PracticeKind, below: (n: number) => number): [number, number][] {
  const pairs: [number, number][] = [];
  for (let i = 1; i < count; i++) pairs.push([below(i), i]);
  const isThere = (a: number, b: number) => pairs.some(([p, q]) => p === a && q === b);
  const free: [number, number][] = [];
  for (let b = 1; b < count; b++) for (let a = 0; a < b; a++) if (!isThere(a, b)) free.push([a, b]);
  for (let n = Math.ceil(count / 2); n > 0 && free.length > 0; n--) pairs.push(free.splice(below(free.length), 1)[0]!);
  // Parallel cables make ties that the port decides.
  if (kind === 'port') for (let n = 0; n < 2; n++) pairs.push(pairs[below(pairs.length)]!);
  return pairs;
}

/** A network to work out: as many switches as asked for, and ties of the kind that is to be practised. */
export function practiceNetwork({ switches: count, kind, seed }: Exercise): Design {
  const below = chances(seed);
  const draft = new DesignDraft('Practice').vlan(10, 'network', 0);
  if (kind === 'instances') draft.vlan(20, 'second', 2);
  const used = new Set<number>();
  const octet = (): string => {
    let n = 16 + below(240);
    while (used.has(n)) n = 16 + ((n - 15) % 240);
    used.add(n);
    return n.toString(16).padStart(2, '0');
  };
  const angle = (i: number) => (2 * Math.PI * i) / count - Math.PI / 2;
  const priority = (): number => PRIORITIES[below(PRIORITIES.length)]!;
  for (let i = 0; i < count; i++) {
    const own =
      kind === 'instances'
        ? { instancePriority: { 0: priority(), 1: priority(), 2: priority() } }
        : kind === 'plain'
          ? { priority: priority() }
          : {};
    const [x, y] = [Math.round(400 + 300 * Math.cos(angle(i))), Math.round(260 + 200 * Math.sin(angle(i)))];
    draft.switch(`${PREFIX}${LETTERS[i]}`, `00:00:5e:00:53:${octet()}`, undefined, x, y, {
      name: LETTERS[i]!,
      ...own,
    });
  }
  const next = new Array<number>(count).fill(0);
  for (const [a, b] of pairsOf(count, kind, below)) {
    const speed = kind === 'costs' ? SPEEDS[below(SPEEDS.length)]! : 1000;
    draft.link([`${PREFIX}${LETTERS[a]}`, ++next[a]!], [`${PREFIX}${LETTERS[b]}`, ++next[b]!], speed, 'all');
  }
  const { design } = draft;
  design.mode = kind === 'instances' ? 'mstp' : 'rstp';
  if (kind === 'instances')
    design.regions = [{ id: 'practice', name: 'practice', revision: 1, map: { 1: '10', 2: '20' } }];
  return design;
}
