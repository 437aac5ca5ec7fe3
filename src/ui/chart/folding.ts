/**
 * Which switches one plate stands for, where a network is too large to read: switches that are alike in the tree in view, whole
 * groups, and groups that are alike. What differs from its like stands beside them, and says in what.
 */
import type { Design } from '../../core/design';
import { groupBy } from '../../core/design';
import type { Ends, WireEnd } from './ends';
import { numbering } from './marks';
import type { MarksOf } from './marks';
import type { Stands } from './stands';
import { unlikeWords } from './unlike';
import type { Contact } from './unlike';
import { unfolded } from './cells';
import type { Cell, FoldBy, Folding } from './cells';

export interface FoldInput {
  readonly design: Design;
  readonly cables: Cables;
  readonly stands: Stands;
  /** Settings of a switch that count for being alike, by index: its priority in the tree, its region. */
  readonly settings: (index: number) => string;
  /** Cost to the root of a switch, by index. */
  readonly cost: (index: number) => number;
  readonly groups: readonly (string | null)[];
  /** Switches that are to be seen by themselves: the root, what is selected, what failed. */
  readonly keep: ReadonlySet<number>;
  /** What was opened: `alike` with the identifier of a switch, `group` or `groups` with the name of a group. */
  readonly open: ReadonlySet<string>;
  readonly by: FoldBy;
}

/** Fewer than this are not worth a fold. */
const LEAST = 3;

interface Draft {
  kind: Cell['kind'];
  name: string;
  members: number[];
  count: number;
}

/** One cable or bundle, from the side of one of its switches. */
interface Cable {
  readonly port: number;
  /** Switch at the far end, by index; -1 where it is a spot. */
  readonly far: number;
  readonly spot: string;
  readonly role: string;
  readonly blocked: boolean;
  /** What stands at its port, and all of the cable that counts for being alike, as numbers. */
  readonly mark: number;
  readonly word: number;
}

/** By switch, in the order of its ports. */
export type Cables = readonly (readonly Cable[])[];

/** Cables by switch, from its side. `marks`: what of a port counts for being alike. */
export function cablesOf(design: Design, ends: readonly Ends[], marks: MarksOf): Cables {
  const cables: Cable[][] = design.switches.map(() => []);
  const numberOf = numbering();
  const add = (own: WireEnd, far: WireEnd, { kind, label, unseen, peer }: Ends) => {
    if (!('port' in own)) return;
    const { role, blocked, word: mark } = marks(own.port);
    const there = 'port' in far ? marks(far.port).word : '';
    const [home, spot] = 'port' in far ? [far.home, ''] : [-1, `spot ${far.spot}`];
    const word = numberOf(`${mark} ${there} ${kind} ${label} ${unseen} ${peer}`);
    cables[own.home]!.push({ port: own.port, far: home, spot, role, blocked, mark, word });
  };
  for (const end of ends) {
    if (end.kind === 'host') continue;
    add(end.a, end.b, end);
    add(end.b, end.a, end);
  }
  for (const own of cables) own.sort((p, q) => p.port - q.port);
  return cables;
}

/** What switches of a cell have to do with others, sorted; cables within the cell left out. */
function contactsOf(cables: Cables, cellOf: readonly number[], members: readonly number[]): Contact[] {
  const own = cellOf[members[0]!];
  const contacts: Contact[] = [];
  for (const m of members)
    cables[m]!.forEach(({ far, spot, role, blocked, word }, rank) => {
      if (far >= 0 && cellOf[far] === own) return;
      const whom = far >= 0 ? `${cellOf[far]}` : spot;
      // Of one switch it counts which of its ports it is; the numbers of ports themselves may differ.
      const place = members.length > 1 ? 0 : rank;
      contacts.push({ far: whom, role, place, blocked, word: `${whom} ${place} ${word}` });
    });
  return contacts.sort((a, b) => (a.word < b.word ? -1 : 1));
}

/** What stands at each switch of a group, whichever it is, as one word. */
function insideOf({ design, cables, settings }: FoldInput, members: readonly number[]): string {
  if (members.length < 2) return '';
  const words = members.map((m) =>
    [design.switches[m]!.tier, settings(m), ...cables[m]!.map(({ mark }) => mark)].join(' '),
  );
  return words.sort().join('\n');
}

/** What names have in common, without the number at its end. */
function commonName(names: readonly string[]): string {
  let common = names[0]!;
  for (const name of names) while (!name.startsWith(common)) common = common.slice(0, -1);
  return common.replace(/[\d\W_]+$/u, '');
}

const alikeName = ({ design }: FoldInput, members: readonly number[]): string => {
  const common = commonName(members.map((m) => design.switches[m]!.name));
  return common.length > 1 ? `${common} × ${members.length}` : `${members.length} switches`;
};

/** Cells that are alike become one. */
function foldAlike(input: FoldInput, drafts: readonly Draft[], of: 'switch' | 'group'): Draft[] {
  const { design, cables, keep, open, cost, stands, settings } = input;
  const cellOf = cellsOf(design, drafts);
  const single = (d: Draft) =>
    d.kind !== of ||
    (of === 'switch' && keep.has(d.members[0]!)) ||
    open.has(of === 'switch' ? `alike ${design.switches[d.members[0]!]!.id}` : `groups ${d.name}`);
  const signature = (d: Draft, i: number): string => {
    if (single(d)) return `own ${i}`;
    const first = design.switches[d.members[0]!]!;
    const least = Math.min(...d.members.map(cost));
    const words = contactsOf(cables, cellOf, d.members).map((c) => c.word);
    const own =
      of === 'switch'
        ? [first.tier, settings(d.members[0]!), stands.switch(d.members[0]!)]
        : [d.members.length, insideOf(input, d.members)];
    return [least, ...own, ...words].join('\n');
  };
  const like = groupBy(drafts.keys(), (i) => signature(drafts[i]!, i));
  return [...like.values()].flatMap((indices) => {
    const own = indices.map((i) => drafts[i]!);
    if (own.length < LEAST) return own;
    const members = own.flatMap((d) => d.members);
    const count = own.length;
    if (of === 'switch') return [{ kind: 'alike' as const, members, count, name: alikeName(input, members) }];
    return [{ kind: 'groups' as const, members, count, name: `${count} like ${own[0]!.name}` }];
  });
}

/** Groups become one cell, but for those that were opened and those with something in them that is to be seen. */
function foldGroups({ groups, keep, open }: FoldInput, drafts: readonly Draft[]): Draft[] {
  const groupAt = (d: Draft, i: number) => {
    const name = groups[d.members[0]!];
    return name === null || name === undefined || open.has(`group ${name}`) ? `own ${i}` : `in ${name}`;
  };
  const together = groupBy(drafts.keys(), (i) => groupAt(drafts[i]!, i));
  return [...together].flatMap(([key, indices]) => {
    const own = indices.map((i) => drafts[i]!);
    const members = own.flatMap((d) => d.members);
    if (members.length < LEAST || members.some((m) => keep.has(m)) || key.startsWith('own')) return own;
    return [{ kind: 'group' as const, members, count: 1, name: groups[members[0]!]! }];
  });
}

function cellsOf(design: Design, drafts: readonly Draft[]): number[] {
  const cellOf = design.switches.map(() => 0);
  drafts.forEach(({ members }, cell) => {
    for (const m of members) cellOf[m] = cell;
  });
  return cellOf;
}

const ID: Record<Cell['kind'], string> = { switch: '', alike: 'alike ', group: 'group ', groups: 'groups ' };

/** Folds a network by a given choice. */
export function foldingOf(input: FoldInput): Folding {
  const { design, cables, by, groups } = input;
  if (by === 'none') return unfolded(design);
  let drafts: Draft[] = design.switches.map((s, i) => ({ kind: 'switch', name: s.name, members: [i], count: 1 }));
  if (by !== 'alike') drafts = foldGroups(input, drafts);
  drafts = foldAlike(input, drafts, 'switch');
  if (by === 'groups-alike') drafts = foldAlike(input, drafts, 'group');
  // In the order of the switches that stand for them, so that a drawing keeps its order.
  drafts.sort((a, b) => a.members[0]! - b.members[0]!);
  const cellOf = cellsOf(design, drafts);
  const blocked = drafts.map((d) => d.members.reduce((sum, m) => sum + cables[m]!.filter((c) => c.blocked).length, 0));
  const far = (c: Contact) => (c.far.startsWith('spot') ? '' : (drafts[Number(c.far)]?.name ?? ''));
  const unlike = unlikeWords(
    drafts.map((d) => {
      const one = d.members.slice(0, d.members.length / d.count);
      const contacts = contactsOf(cables, cellOf, one);
      return {
        ...d,
        contacts,
        inside: insideOf(input, one),
        switches: one.length,
        cost: Math.min(...one.map(input.cost)),
      };
    }),
    (d) => familyOf(design, groups, d),
    far,
  );
  const cells = drafts.map(({ kind, name, members, count }, i): Cell => {
    const first = kind === 'group' || kind === 'groups' ? groups[members[0]!]! : design.switches[members[0]!]!.id;
    return { id: `${ID[kind]}${first}`, name, kind, members, count, blocked: blocked[i]!, unlike: unlike[i]! };
  });
  return { cells, cellOf };
}

/** Cells that one expects to be alike: of a tier of a group, or the groups; null where nothing is expected. */
function familyOf(design: Design, groups: readonly (string | null)[], { kind, members }: Draft): string | null {
  if (kind === 'group' || kind === 'groups') return 'groups';
  const { tier } = design.switches[members[0]!]!;
  return tier === undefined ? null : `${groups[members[0]!] ?? ''} ${tier}`;
}

/** What opening a fold adds to what is open. */
export function opening({ design, groups }: Pick<FoldInput, 'design' | 'groups'>, cell: Cell): string[] {
  if (cell.kind === 'alike') return cell.members.map((m) => `alike ${design.switches[m]!.id}`);
  const names = [...new Set(cell.members.map((m) => groups[m]!))];
  return names.map((name) => `${cell.kind} ${name}`);
}
