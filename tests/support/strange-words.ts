/** Words that no sentence should have: values that are missing, ids, a number with the wrong form of its noun. */
import type { Design } from '@/core/design';

/** Fields that hold no id. */
const WORDS = new Set(['name', 'text', 'type', 'kind', 'mode', 'tier', 'group']);

/** Gives every id of a design a number of its own. */
function number(design: Design, ids: Map<string, string>): void {
  for (const list of Object.values(design) as unknown[])
    if (Array.isArray(list))
      for (const element of list as { id?: unknown }[])
        if (typeof element === 'object' && typeof element.id === 'string')
          ids.set(element.id, ids.get(element.id) ?? `zq${ids.size}xj`);
}

/** Designs with ids that no word holds; what had one id in several of them still has. Names stay. */
export function withStrangeIds(...designs: readonly Design[]): Design[] {
  const ids = new Map<string, string>();
  for (const design of designs) number(design, ids);
  const other = (value: unknown, key: string): unknown => {
    if (typeof value === 'string') return WORDS.has(key) ? value : (ids.get(value) ?? value);
    if (Array.isArray(value)) return value.map((v) => other(v, key));
    if (value === null || typeof value !== 'object') return value;
    return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, other(v, k)]));
  };
  return designs.map((design) => other(design, '') as Design);
}

export const STRANGE =
  /\b(?:NaN|undefined|null|Infinity|zq\d+xj)\b|\[object |(?<!of )\b1 (?:cables|ports|switches|links|members|hosts|trees|VLANs)\b/;
