/** Limits of free JSON values: how deep they may nest, and of how many parts they may consist. Walked without recursion. */
import { z } from 'zod';
import { documentMessages as say } from '../messages';

export interface JsonLimits {
  readonly depth: number;
  /** Values, counted with those inside lists and objects. */
  readonly parts: number;
}

/** A document as a whole, and anything that a request carries. */
export const DOCUMENT_LIMITS: JsonLimits = { depth: 40, parts: 4_000_000 };
/** The value of one edit. */
export const VALUE_LIMITS: JsonLimits = { depth: 24, parts: 200_000 };
/** The edits of one event of a script. */
export const SCRIPT_EDIT_LIMITS: JsonLimits = { depth: 16, parts: 20_000 };

/** Whether an object is one of names and values; its prototype may belong to another frame or thread. */
const isPlain = (value: object): boolean => Object.prototype.toString.call(value) === '[object Object]';

/** Why a value is not a JSON value within the limits; null when it is one. */
export function jsonFault(root: unknown, limits: JsonLimits): string | null {
  let level: unknown[] = [root];
  let parts = 0;
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > limits.depth) return say.tooDeep(limits.depth);
    parts += level.length;
    if (parts > limits.parts) return say.tooManyParts(limits.parts);
    const next: unknown[] = [];
    for (const value of level) {
      if (value === null || typeof value === 'string' || typeof value === 'boolean') continue;
      if (typeof value === 'number' && Number.isFinite(value)) continue;
      if (Array.isArray(value)) for (const part of value) next.push(part);
      else if (typeof value === 'object' && isPlain(value))
        for (const key of Object.keys(value)) next.push((value as Record<string, unknown>)[key]);
      else return say.noJson();
    }
    level = next;
  }
  return null;
}

type Json = string | number | boolean | null | Json[] | { [key: string]: Json };

/** A free JSON value within limits. */
export const limitedJson = (limits: JsonLimits) =>
  z.custom<Json>().superRefine((value, context) => {
    const fault = jsonFault(value, limits);
    if (fault !== null) context.addIssue({ code: 'custom', message: fault });
  });
