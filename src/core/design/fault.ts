/** An expected problem: where in the design it lies and the sentence for the engineer. */
import type { z } from 'zod';
import type { Kind } from './schema';
import { MISSING_VALUE, clipped, documentMessages as say } from '../messages';

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
    (text, key) =>
      typeof key === 'number' ? `${text}[${key}]` : text === '' ? clipped(key) : `${text}.${clipped(key)}`,
    '',
  );
}

const TYPE_WORDS: Record<string, string> = {
  string: 'a text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  array: 'a list',
  tuple: 'a list',
  object: 'an object',
  record: 'an object',
};

/** Lists of the document, and what one element of each is called. */
const OWNERS: Readonly<Record<string, readonly [kind: string, words: string]>> = {
  vlans: ['vlan', 'A VLAN'],
  switches: ['switch', 'A switch'],
  ports: ['port', 'A port'],
  links: ['link', 'A link'],
  segments: ['segment', 'A segment'],
  bundles: ['bundle', 'A bundle'],
  hosts: ['host', 'A host'],
  regions: ['region', 'A region'],
  pairs: ['pair', 'A pair'],
  scripts: ['script', 'A script'],
  goals: ['goal', 'A goal'],
  demands: ['demand', 'A demand'],
  risks: ['risk', 'A risk group'],
  accepted: ['acceptance', 'An accepted finding'],
  workplaces: ['workplace', 'A workplace'],
  readings: ['reading', 'A reading'],
  notes: ['note', 'A note'],
  cableCosts: ['cable cost', 'A cable cost'],
};

type Path = readonly (string | number)[];

/** `A port needs a number from 1 to 4095.` */
function missingSentence(path: Path): string {
  const field = String(path.at(-1) ?? 'value');
  const owner = typeof path[1] === 'number' ? OWNERS[String(path[0])] : undefined;
  if (owner && path.length === 3) return say.needs(owner[1], `${owner[0]}.${field}`);
  if (owner && path[0] === 'scripts' && path.length === 5) return say.needs('An event', `event.${field}`);
  return say.needs(path.length === 1 ? 'The document' : 'This part', `this.${field}`);
}

/** The sentence of an issue for which the schema has none: the schema library's own words are not for people. */
function ownSentence(issue: z.core.$ZodIssue, path: Path): string {
  const what = `The value of '${String(path.at(-1) ?? 'the request')}'`;
  switch (issue.code) {
    case 'invalid_type':
      return say.wrongType(TYPE_WORDS[issue.expected] ?? 'another kind of value');
    case 'too_big':
      return say.outOfRange(what, issue.maximum, 'most');
    case 'too_small':
      return say.outOfRange(what, issue.minimum, 'least');
    case 'invalid_value':
      return say.notOneOf(what, issue.values);
    default:
      return say.noneOfThese(what);
  }
}

const BY_LIBRARY = /^(Invalid|Too (big|small)|Unrecognized|No matching|Unknown)/;
/** The text of a missing value in the library's own sentence. */
const RECEIVED_NOTHING = /received undefined/;

/** Zod's issues as faults, in our words where the schema gave none. */
export function faultsOf(error: z.ZodError, at: Path = []): Fault[] {
  return error.issues.map((issue) => {
    const path = [...at, ...(issue.path as (string | number)[])];
    const { message } = issue;
    if (issue.code === 'unrecognized_keys')
      return { code: 'unknown-field', path, sentence: say.unknownField(issue.keys) };
    if (issue.code === 'invalid_key') return { code: 'key', path, sentence: issue.issues[0]?.message ?? message };
    if (message === MISSING_VALUE || (BY_LIBRARY.test(message) && RECEIVED_NOTHING.test(message)))
      return { code: 'missing', path, sentence: missingSentence(path) };
    if (!BY_LIBRARY.test(message))
      return { code: issue.code, path, sentence: /[.)]$/.test(message) ? message : `${message}.` };
    const code = issue.code === 'invalid_type' ? 'type' : issue.code;
    return { code, path, sentence: ownSentence(issue, path) };
  });
}
