/** What differs between the settings of two designs in a tree of YANG data: what to set, and what to take away, device by device. */

type Json = Record<string, unknown>;

/** Leaves by which entries of lists are known, in the models that are written. */
const KEYS = ['name', 'vlan-id', 'mst-id', 'vids', 'vid', 'fid', 'port-ref'] as const;

const isPlain = (v: unknown): v is Json => typeof v === 'object' && v !== null && !Array.isArray(v);
const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** The leaf that tells the entries of a list apart; null for a list of values. */
function keyOf(list: readonly unknown[]): string | null {
  const [first] = list;
  return isPlain(first) ? (KEYS.find((k) => k in first) ?? null) : null;
}

interface Found {
  /** The part of the wanted tree that is new or another; undefined where nothing is. */
  readonly set: unknown;
  readonly remove: readonly string[];
}

function ofObjects(from: Json, to: Json, path: string): Found {
  const set: Json = {};
  const remove = Object.keys(from).flatMap((k) => (k in to ? [] : [`${path}/${k}`]));
  for (const [key, value] of Object.entries(to)) {
    const found: Found = key in from ? between(from[key], value, `${path}/${key}`) : { set: value, remove: [] };
    if (found.set !== undefined) set[key] = found.set;
    remove.push(...found.remove);
  }
  return { set: Object.keys(set).length > 0 ? set : undefined, remove };
}

function ofLists(from: readonly Json[], to: readonly Json[], key: string, path: string): Found {
  const at = (entry: Json) => `${path}[${key}='${String(entry[key])}']`;
  const before = new Map(from.map((e) => [e[key], e]));
  const after = new Set(to.map((e) => e[key]));
  const remove = from.flatMap((e) => (after.has(e[key]) ? [] : [at(e)]));
  const set = to.flatMap((entry) => {
    const old = before.get(entry[key]);
    const found: Found = old ? ofObjects(old, entry, at(entry)) : { set: entry, remove: [] };
    remove.push(...found.remove);
    // An entry is found by its key, which stands in it whatever else changes.
    return found.set === undefined ? [] : [{ [key]: entry[key], ...(found.set as Json) }];
  });
  return { set: set.length > 0 ? set : undefined, remove };
}

function between(from: unknown, to: unknown, path: string): Found {
  if (same(from, to)) return { set: undefined, remove: [] };
  if (isPlain(from) && isPlain(to)) return ofObjects(from, to, path);
  if (Array.isArray(from) && Array.isArray(to)) {
    const key = keyOf(to) ?? keyOf(from);
    if (key !== null) return ofLists(from as Json[], to as Json[], key, path);
  }
  return { set: to, remove: [] };
}

/** By device: `set`, to be merged into what is there, and `remove`, paths as instance identifiers. Devices that stay as they are are left out. */
export function yangDifference(from: Json, to: Json): Json {
  const devices = [...new Set([...Object.keys(from), ...Object.keys(to)])];
  return Object.fromEntries(
    devices.flatMap((name) => {
      const { set, remove } = between(from[name] ?? {}, to[name] ?? {}, '');
      return set === undefined && remove.length === 0
        ? []
        : [[name, { ...(set === undefined ? {} : { set }), ...(remove.length > 0 ? { remove } : {}) }]];
    }),
  );
}
