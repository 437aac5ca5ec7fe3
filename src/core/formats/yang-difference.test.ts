import fc from 'fast-check';
import { asCabled, asMeant } from '@/demo/brackwater';
import { vlanNetworks } from '../../../tests/support/vlan-networks';
import { ieeeYangOf } from './ieee-yang';
import { openConfigOf } from './openconfig';
import { yangDifference } from './yang-difference';

type Json = Record<string, unknown>;
const isPlain = (v: unknown): v is Json => typeof v === 'object' && v !== null && !Array.isArray(v);
const KEYS = ['name', 'vlan-id', 'mst-id', 'vids', 'vid', 'fid', 'port-ref'];

/** Merges a change into a tree, as a device would; entries of lists are found by their keys. */
function merged(from: unknown, set: unknown): unknown {
  if (isPlain(from) && isPlain(set)) {
    const out: Json = { ...from };
    for (const [k, v] of Object.entries(set)) out[k] = k in from ? merged(from[k], v) : v;
    return out;
  }
  const first = Array.isArray(set) ? (set as unknown[])[0] : null;
  const key = isPlain(first) ? KEYS.find((k) => k in first) : undefined;
  if (!Array.isArray(from) || !Array.isArray(set) || !key) return set;
  const list = [...(from as Json[])];
  for (const entry of set as Json[]) {
    const at = list.findIndex((e) => e[key] === entry[key]);
    if (at < 0) list.push(entry);
    else list[at] = merged(list[at], entry) as Json;
  }
  return list;
}

/** Takes away what a path names. */
function without(tree: unknown, path: string): void {
  const parts = path.match(/\/[^/[]+|\[[^\]]+\]/g)!;
  let at = tree as Json | Json[];
  parts.forEach((part, i) => {
    const last = i === parts.length - 1;
    if (part.startsWith('/')) {
      const key = part.slice(1);
      if (last) delete (at as Json)[key];
      else at = (at as Json)[key] as Json;
      return;
    }
    const [, key, value] = /^\[([^=]+)='(.*)'\]$/.exec(part)!;
    const list = at as Json[];
    const n = list.findIndex((e) => String(e[key!]) === value);
    if (last) list.splice(n, 1);
    else at = list[n]!;
  });
}

/** Lists in the order of their keys. */
const ordered = (v: unknown): unknown => {
  if (Array.isArray(v)) {
    const list = v.map(ordered);
    return list.every(isPlain) ? list.sort((a, b) => (JSON.stringify(a) < JSON.stringify(b) ? -1 : 1)) : list;
  }
  return isPlain(v)
    ? Object.fromEntries(
        Object.entries(v)
          .sort()
          .map(([k, x]) => [k, ordered(x)]),
      )
    : v;
};

function carriedOut(from: Json, difference: Json): Json {
  const tree = structuredClone(from);
  for (const [name, change] of Object.entries(difference) as [string, { set?: unknown; remove?: string[] }][]) {
    for (const path of change.remove ?? []) without(tree[name], path);
    tree[name] = merged(tree[name] ?? {}, change.set ?? {});
  }
  return tree;
}

test.each([
  ['OpenConfig', openConfigOf],
  ['IEEE YANG', ieeeYangOf],
])('%s: what differs, carried out on one design, makes the other', (_, write) => {
  const pair = [write(asCabled()), write(asMeant())] as const;
  const difference = yangDifference(...pair);
  expect(JSON.stringify(difference).length).toBeLessThan(JSON.stringify(pair[1]).length / 2);
  expect(ordered(carriedOut(pair[0], difference))).toEqual(ordered(pair[1]));
  expect(yangDifference(pair[0], pair[0])).toEqual({});
  fc.assert(
    fc.property(vlanNetworks, vlanNetworks, (a, b) => {
      const [from, to] = [write(a), write(b)];
      const known = Object.fromEntries(Object.entries(from).filter(([name]) => name in to));
      const wanted = Object.fromEntries(Object.entries(to).filter(([name]) => name in from));
      expect(ordered(carriedOut(known, yangDifference(known, wanted)))).toEqual(ordered(wanted));
    }),
    { numRuns: 40 },
  );
});
