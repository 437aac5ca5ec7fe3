/**
 * Which switches one plate stands for, where a network is too large to read: switches that are alike in the tree in view, whole
 * groups, and groups that are alike. What differs from its like stands beside them, and says in what.
 */
import type { Design } from '../../core/design';
import { groupBy } from '../../core/design';
import type { Ends, WireEnd } from './ends';
import type { PortStands, Stands } from './stands';
import { unlikeWords } from './unlike';
import type { Contact } from './unlike';
import { unfolded } from './cells';
import type { Cell, FoldBy, Folding } from './cells';

export interface PortMarks {
  readonly role: string;
  readonly blocked: boolean;
  /** All of it as one word. */
  readonly word: string;
}

/** What of ports counts for being alike in a tree: what stands there, and whether it moved. Looked up once for each port. */
export function portMarks(
  stands: Stands,
  portAt: (port: number) => string,
  moved: ReadonlySet<string>,
): (port: number) => PortMarks {
  const known: (PortMarks | undefined)[] = [];
  return (port) => {
    const id = portAt(port);
    return (known[port] ??= markOf(stands.port(id), moved.has(id)));
  };
}

const markOf = ({ role, frames, inconsistent, looping, shut }: PortStands, hasMoved: boolean): PortMarks => ({
  role,
  blocked: frames === 'blocked',
  word: [role, frames, inconsistent, looping, shut, hasMoved].join(),
});

export interface FoldInput {
  readonly design: Design;
  readonly ends: readonly Ends[];
  readonly stands: Stands;
  /** What of a port counts for being alike. */
  readonly marks: (port: number) => PortMarks;
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

/** Cables by switch, from its side. */
function cablesOf({ design, ends }: FoldInput): { own: WireEnd; far: WireEnd; end: Ends }[][] {
  const cables: { own: WireEnd; far: WireEnd; end: Ends }[][] = design.switches.map(() => []);
  for (const end of ends) {
    if (end.kind === 'host') continue;
    if ('port' in end.a) cables[end.a.home]!.push({ own: end.a, far: end.b, end });
    if ('port' in end.b) cables[end.b.home]!.push({ own: end.b, far: end.a, end });
  }
  return cables;
}

type Cables = ReturnType<typeof cablesOf>;

const portOf = (end: WireEnd): number => ('port' in end ? end.port : -1);

/** What switches of a cell have to do with others, sorted; cables within the cell left out. */
function contactsOf(
  input: FoldInput,
  cables: Cables,
  cellOf: readonly number[],
  members: readonly number[],
): Contact[] {
  const own = cellOf[members[0]!];
  // Of one switch it counts which of its ports it is; the numbers of ports themselves may differ.
  const ranked = (m: number) =>
    members.length > 1 ? cables[m]! : [...cables[m]!].sort((p, q) => portOf(p.own) - portOf(q.own));
  const contacts = members.flatMap((m) =>
    ranked(m).flatMap(({ own: near, far, end }, rank): Contact[] => {
      if (!('port' in near) || ('port' in far && cellOf[far.home] === own)) return [];
      const here = input.marks(near.port);
      const whom = 'port' in far ? `${cellOf[far.home]}` : `spot ${far.spot}`;
      const there = 'port' in far ? input.marks(far.port).word : '';
      const place = members.length > 1 ? 0 : rank;
      const word = `${whom} ${place} ${here.word} ${there} ${end.kind} ${end.label} ${end.unseen} ${end.peer}`;
      return [{ far: whom, role: here.role, place, blocked: here.blocked, word }];
    }),
  );
  return contacts.sort((a, b) => (a.word < b.word ? -1 : 1));
}

/** What stands at each switch of a group, whichever it is, as one word. */
function insideOf({ design, marks, settings }: FoldInput, cables: Cables, members: readonly number[]): string {
  if (members.length < 2) return '';
  const words = members.map((m) => {
    const own = cables[m]!.map(({ own: end }) => portOf(end)).sort((a, b) => a - b);
    return [design.switches[m]!.tier, settings(m), ...own.map((port) => marks(port).word)].join(' ');
  });
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
function foldAlike(input: FoldInput, cables: Cables, drafts: readonly Draft[], of: 'switch' | 'group'): Draft[] {
  const { design, keep, open, cost, stands, settings } = input;
  const cellOf = cellsOf(design, drafts);
  const single = (d: Draft) =>
    d.kind !== of ||
    (of === 'switch' && keep.has(d.members[0]!)) ||
    open.has(of === 'switch' ? `alike ${design.switches[d.members[0]!]!.id}` : `groups ${d.name}`);
  const signature = (d: Draft, i: number): string => {
    if (single(d)) return `own ${i}`;
    const first = design.switches[d.members[0]!]!;
    const least = Math.min(...d.members.map(cost));
    const words = contactsOf(input, cables, cellOf, d.members).map((c) => c.word);
    const own =
      of === 'switch'
        ? [first.tier, settings(d.members[0]!), stands.switch(d.members[0]!)]
        : [d.members.length, insideOf(input, cables, d.members)];
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
  const { design, by, groups } = input;
  if (by === 'none') return unfolded(design);
  const cables = cablesOf(input);
  let drafts: Draft[] = design.switches.map((s, i) => ({ kind: 'switch', name: s.name, members: [i], count: 1 }));
  if (by !== 'alike') drafts = foldGroups(input, drafts);
  drafts = foldAlike(input, cables, drafts, 'switch');
  if (by === 'groups-alike') drafts = foldAlike(input, cables, drafts, 'group');
  // In the order of the switches that stand for them, so that a drawing keeps its order.
  drafts.sort((a, b) => a.members[0]! - b.members[0]!);
  const cellOf = cellsOf(design, drafts);
  const blocked = drafts.map((d) =>
    d.members.reduce(
      (sum, m) => sum + cables[m]!.filter(({ own }) => 'port' in own && input.marks(own.port).blocked).length,
      0,
    ),
  );
  const far = (c: Contact) => (c.far.startsWith('spot') ? '' : (drafts[Number(c.far)]?.name ?? ''));
  const unlike = unlikeWords(
    drafts.map((d) => {
      const one = d.members.slice(0, d.members.length / d.count);
      const contacts = contactsOf(input, cables, cellOf, one);
      return {
        ...d,
        contacts,
        inside: insideOf(input, cables, one),
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
