/**
 * Reads a JSON text for what parsing does not tell: where it breaks, by line and column, and a key that stands twice in
 * one object, of which parsing would keep the last and say nothing (RFC 8259).
 */

const SPACE = /[ \t\r\n]*/y;
const STRING = /"(?:[^"\\\u0000-\u001f]|\\(?:["\\/bfnrt]|u[0-9a-fA-F]{4}))*"/y;
const SCALAR = /-?(?:0|[1-9]\d*)(?:\.\d+)?(?:[eE][+-]?\d+)?|true|false|null/y;

type Expected = 'value' | 'first value' | 'key' | 'first key' | 'colon' | 'comma' | 'nothing';

export interface JsonScan {
  /** Where the text stops being JSON; null when it is JSON to its end. */
  readonly breaksAt: number | null;
  /** The first key that stands twice in one object. */
  readonly twice: string | null;
}

class Scanner {
  private at = 0;
  /** Keys of each open object; null for an open list. */
  private readonly open: (Set<string> | null)[] = [];
  private twice: string | null = null;

  constructor(private readonly text: string) {}

  private take(pattern: RegExp): string | null {
    pattern.lastIndex = this.at;
    const found = pattern.exec(this.text)?.[0] ?? null;
    if (found !== null) this.at = pattern.lastIndex;
    return found;
  }

  /** What comes after a complete value. */
  private after = (): Expected => (this.open.length === 0 ? 'nothing' : 'comma');

  private value(sign: string): Expected | null {
    if (sign === '{' || sign === '[') {
      this.at++;
      this.open.push(sign === '{' ? new Set() : null);
      return sign === '{' ? 'first key' : 'first value';
    }
    return this.take(sign === '"' ? STRING : SCALAR) ? this.after() : null;
  }

  private key(): Expected | null {
    const found = this.take(STRING);
    if (found === null) return null;
    const keys = this.open.at(-1);
    const key = JSON.parse(found) as string;
    if (keys?.has(key)) this.twice ??= key;
    keys?.add(key);
    return 'colon';
  }

  private close(): Expected {
    this.at++;
    this.open.pop();
    return this.after();
  }

  /** One token; null where none of those stands that may. */
  private step(expected: Expected): Expected | null {
    const sign = this.text[this.at] ?? '';
    const inObject = this.open.at(-1) !== null;
    switch (expected) {
      case 'nothing':
        return null;
      case 'colon':
        return sign === ':' ? (this.at++, 'value') : null;
      case 'comma':
        if (sign === ',') return (this.at++, inObject ? 'key' : 'value');
        return sign === (inObject ? '}' : ']') ? this.close() : null;
      case 'first key':
        return sign === '}' ? this.close() : this.key();
      case 'key':
        return this.key();
      case 'first value':
        return sign === ']' ? this.close() : this.value(sign);
      case 'value':
        return this.value(sign);
    }
  }

  scan(): JsonScan {
    let expected: Expected = 'value';
    for (;;) {
      this.take(SPACE);
      if (this.at >= this.text.length)
        return { breaksAt: expected === 'nothing' ? null : this.text.length, twice: this.twice };
      const next = this.step(expected);
      if (next === null) return { breaksAt: this.at, twice: this.twice };
      expected = next;
    }
  }
}

export const scanJson = (text: string): JsonScan => new Scanner(text).scan();

/** `it breaks at line 3, column 14`, or that it ends too early. */
export function breakWords(text: string, at: number): string {
  if (text.slice(at).trim() === '') return 'it ends in the middle';
  const before = text.slice(0, at).split('\n');
  return `it breaks at line ${before.length}, column ${before.at(-1)!.length + 1}`;
}

/** Why a text cannot be read as JSON, or the key that stands twice in it; null when it can. */
export function jsonTextFault(text: string): { readonly breaks: string } | { readonly twice: string } | null {
  const { breaksAt, twice } = scanJson(text);
  if (breaksAt !== null) return { breaks: breakWords(text, breaksAt) };
  return twice === null ? null : { twice };
}
