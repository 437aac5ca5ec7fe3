/** What a search finds, and in which order: exact names first, then what begins with the words, then what holds them. */

/** Something that can be found. */
export interface Entry {
  readonly key: string;
  readonly group: string;
  readonly title: string;
  /** More words by which it is found, shown beside it. */
  readonly hint: string;
  /** Words by which it is found too, not shown. */
  readonly also?: string;
  readonly run: () => void;
}

const MOST_SHOWN = 60;

/** 0 for the name itself, 1 where it begins so, 2 where a word of it does, 3 where it is somewhere; null where it is not. */
export function rankOf(
  { title, hint, also = '' }: Pick<Entry, 'title' | 'hint' | 'also'>,
  text: string,
): number | null {
  const wanted = text.trim().toLowerCase();
  const name = title.toLowerCase();
  const words = wanted.split(/\s+/).filter(Boolean);
  const all = `${name} ${hint} ${also}`.toLowerCase();
  if (!words.every((w) => all.includes(w))) return null;
  if (name === wanted) return 0;
  if (name.startsWith(wanted)) return 1;
  const starts = name.split(/[^\p{L}\p{N}]+/u);
  return words.every((w) => starts.some((s) => s.startsWith(w))) ? 2 : 3;
}

/** Entries that hold every word of a text, best first; those of a group stay together, the group with the best one first. */
export function found(all: readonly Entry[], text: string): Entry[] {
  const hits = all.flatMap((entry) => {
    const rank = rankOf(entry, text);
    return rank === null ? [] : [{ entry, rank }];
  });
  if (text.trim() === '') return hits.slice(0, MOST_SHOWN).map((h) => h.entry);
  const best = new Map<string, number>();
  for (const { entry, rank } of hits) best.set(entry.group, Math.min(best.get(entry.group) ?? Infinity, rank));
  const place = new Map([...best.keys()].map((group, i) => [group, i]));
  return hits
    .sort(
      (a, b) =>
        best.get(a.entry.group)! - best.get(b.entry.group)! ||
        place.get(a.entry.group)! - place.get(b.entry.group)! ||
        a.rank - b.rank,
    )
    .slice(0, MOST_SHOWN)
    .map((h) => h.entry);
}
