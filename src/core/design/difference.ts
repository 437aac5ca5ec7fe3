/** The edits that lead from one design to another: what differs between two variants. */
import { TABLE_FIELDS } from './edits';
import type { Edit } from './edits';
import { COLLECTIONS, KINDS } from './schema';
import type { Design } from './schema';

type Plain = Record<string, unknown>;

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
const isTable = (value: unknown): value is Plain =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** What a table must have set, and what removed. */
function tableEdits(field: string, from: Plain, to: Plain): { field: string; value: unknown }[] {
  const keys = new Set([...Object.keys(from), ...Object.keys(to)]);
  return [...keys].flatMap((key) =>
    same(from[key], to[key]) ? [] : [{ field: `${field}.${key}`, value: to[key] ?? null }],
  );
}

function fieldEdits(from: Plain, to: Plain): { field: string; value: unknown }[] {
  const fields = new Set([...Object.keys(from), ...Object.keys(to)]);
  return [...fields].flatMap((field) => {
    const [a, b] = [from[field], to[field]];
    if (same(a, b)) return [];
    if (TABLE_FIELDS.has(field) && (isTable(a) || isTable(b)))
      return tableEdits(field, (a as Plain | undefined) ?? {}, (b as Plain | undefined) ?? {});
    return [{ field, value: b ?? null }];
  });
}

/** Removals first, then what is new, then what is set otherwise; elements are identified by their ids. The order of lists does not count. */
export function differenceBetween(from: Design, to: Design): Edit[] {
  const settings = (['name', 'mode', 'costScale', 'bundleCost'] as const).flatMap((field): Edit[] =>
    from[field] === to[field] ? [] : [{ type: 'settings', field, value: to[field] }],
  );
  const removed: Edit[] = [];
  const added: Edit[] = [];
  const changed: Edit[] = [];
  for (const kind of KINDS) {
    const { list } = COLLECTIONS[kind];
    const before = new Map((from[list] as readonly { id: string }[]).map((e) => [e.id, e]));
    const after = new Map((to[list] as readonly { id: string }[]).map((e) => [e.id, e]));
    for (const id of before.keys()) if (!after.has(id)) removed.push({ type: 'remove', kind, id });
    for (const [id, value] of after) {
      const old = before.get(id);
      if (!old) added.push({ type: 'add', kind, value });
      else
        for (const { field, value: next } of fieldEdits(old, value))
          changed.push({ type: 'set', kind, id, field, value: next as never });
    }
  }
  return [...settings, ...removed, ...added, ...changed];
}
