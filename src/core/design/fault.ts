/** An expected problem: where in the design it lies and the sentence for the engineer. */
import type { z } from 'zod';
import type { Kind } from './schema';
import { wording } from './wording';

export interface Fault {
  readonly code: string;
  /** Keys and indices from the document's root. */
  readonly path: readonly (string | number)[];
  readonly sentence: string;
  /** The element of a refused edit that the path leads to. */
  readonly subject?: { readonly kind: Kind; readonly id: string };
}

/** `switches[3].priority` */
export function formatPath(path: readonly (string | number)[]): string {
  return path.reduce<string>(
    (text, key) => (typeof key === 'number' ? `${text}[${key}]` : text === '' ? key : `${text}.${key}`),
    '',
  );
}

const TYPE_WORDS: Record<string, string> = {
  string: 'a text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  array: 'a list',
  object: 'an object',
  record: 'an object',
};

/** Zod's issues as faults, in our words where the schema gave none. */
export function faultsOf(error: z.ZodError, at: readonly (string | number)[] = []): Fault[] {
  return error.issues.map((issue) => {
    const path = [...at, ...(issue.path as (string | number)[])];
    if (issue.code === 'unrecognized_keys')
      return { code: 'unknown-field', path, sentence: wording.unknownField(issue.keys) };
    if (issue.code === 'invalid_key') return { code: 'key', path, sentence: issue.issues[0]?.message ?? issue.message };
    if (issue.code === 'invalid_type' && /^Invalid input/.test(issue.message)) {
      const what = TYPE_WORDS[issue.expected] ?? issue.expected;
      const missing = /received undefined/.test(issue.message);
      return {
        code: missing ? 'missing' : 'type',
        path,
        sentence: missing ? wording.missing(`The field '${String(path.at(-1) ?? '')}'`) : wording.wrongType(what),
      };
    }
    return { code: issue.code, path, sentence: /[.)]$/.test(issue.message) ? issue.message : `${issue.message}.` };
  });
}
