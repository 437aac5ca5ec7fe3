/** What of a design its failures depend on, as one text: two designs with the same text have the same failures. */
import type { Design } from '../design';

/** Fields that stand in the drawing alone. Names are not among them: they stand in the sentences about goals. */
const DRAWN = new Set(['x', 'y', 'description', 'hue']);
/** Lists that no failure knows of. */
const UNKNOWN = new Set<string>(['scripts', 'accepted', 'workplaces', 'readings', 'notes', 'cableCosts']);

export const sweepKey = (design: Design): string =>
  JSON.stringify(design, function (this: unknown, field: string, value: unknown) {
    if (this === design) return UNKNOWN.has(field) || field === 'name' ? undefined : value;
    return DRAWN.has(field) ? undefined : value;
  });
