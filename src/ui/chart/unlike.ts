/** In what a part of a drawing differs from those that are otherwise alike. */
import { groupBy } from '../../core/design';

/** One cable or bundle of a cell: what of it counts for being alike. */
export interface Contact {
  /** Cell or spot at the far end. */
  readonly far: string;
  readonly role: string;
  /** Which of the ports of its switch it is; 0 where that does not count. */
  readonly place: number;
  readonly blocked: boolean;
  /** All that counts, as one word. */
  readonly word: string;
}

/** One of the things that a plate stands for, all of which are alike. */
export interface Part {
  /** How many it stands for. */
  readonly count: number;
  /** Switches of one. */
  readonly switches: number;
  readonly contacts: readonly Contact[];
  /** What stands within it, where it is several switches. */
  readonly inside: string;
  readonly cost: number;
}

/** Others are unlike where this share of a family is alike. */
const MOST = 0.6;
const LEAST = 3;

const moreOrFewer = (own: number, usual: number, what: string): string =>
  own > usual ? `${own - usual} more ${what}` : `${usual - own} fewer ${what}`;

/** What differs, in a few words; null where nothing does. `far`: what a contact leads to. */
function difference(own: Part, usual: Part, far: (c: Contact) => string): string | null {
  const whom = (p: Part) => [...new Set(p.contacts.map(far))].sort().join('\n');
  const rootSide = (p: Part) => p.contacts.filter((c) => c.role === 'root').map((c) => `${far(c)} ${c.place}`)[0];
  const blocked = (p: Part) => p.contacts.filter((c) => c.blocked).length;
  const words = (p: Part) => p.contacts.map((c) => c.word).join('\n');
  if (own.switches !== usual.switches) return moreOrFewer(own.switches, usual.switches, 'switches');
  if (whom(own) !== whom(usual)) return 'other neighbours';
  const [links, usualLinks] = [own.contacts.length, usual.contacts.length];
  if (links !== usualLinks) return moreOrFewer(links, usualLinks, 'links');
  if (rootSide(own) !== rootSide(usual)) return 'other root port';
  if (own.cost !== usual.cost) return 'other cost';
  if (blocked(own) !== blocked(usual)) return moreOrFewer(blocked(own), blocked(usual), 'blocked');
  if (words(own) !== words(usual)) return 'other states';
  return own.inside === usual.inside ? null : 'differs inside';
}

const signature = (p: Part): string => [p.switches, p.cost, ...p.contacts.map((c) => c.word), p.inside].join('\n');

/** For each part the words, null where it is like most of its family or has none. */
export function unlikeWords<P extends Part>(
  parts: readonly P[],
  familyOf: (part: P) => string | null,
  far: (c: Contact) => string,
): (string | null)[] {
  const words: (string | null)[] = parts.map(() => null);
  const weight = (indices: readonly number[]) => indices.reduce((sum, i) => sum + parts[i]!.count, 0);
  for (const [family, indices] of groupBy(parts.keys(), (i) => familyOf(parts[i]!))) {
    if (family === null || indices.length < 2) continue;
    const alike = [...groupBy(indices, (i) => signature(parts[i]!)).values()];
    const usual = alike.reduce((a, b) => (weight(b) > weight(a) ? b : a));
    if (weight(usual) < LEAST || weight(usual) < MOST * weight(indices)) continue;
    const own = new Set(usual);
    for (const i of indices) if (!own.has(i)) words[i] = difference(parts[i]!, parts[usual[0]!]!, far);
  }
  return words;
}
