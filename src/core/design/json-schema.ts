/** The design format as JSON Schema (draft 2020-12), for other tools and editors. */
import { z } from 'zod';
import { designSchema } from './schema';

/** Rules between elements, and what a list of VLANs looks like inside, cannot be said there: see docs/design-format.md. */
export function designJsonSchema(): Record<string, unknown> {
  return { title: 'Knot Path design', ...z.toJSONSchema(designSchema, { io: 'input', unrepresentable: 'any' }) };
}
