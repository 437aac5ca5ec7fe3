/** What no sentence may hold: turns that a reader stumbles over, and marks of a value that was not there. */
import words from './forbidden-words.json';

/** Words and phrases that docs/glossary.md has better ones for. */
export const forbiddenWords: readonly string[] = words;

const MISSING = ['undefined', 'null', 'NaN', '[object'];

/** What is wrong with a sentence; nothing when it is right. */
export function sentenceFaults(text: string): string[] {
  const words = [...forbiddenWords, ...MISSING].filter((word) =>
    new RegExp(`(^|[^\\w])${word.replace('[', '\\[')}([^\\w]|$)`, 'i').test(text),
  );
  // A count of one; in 'VLAN 1 arrives' the number is a name.
  const plural = /(?<![A-Z]\w* )(?<=^|\s)1 (?!of\b)\w+s\b/.exec(text)?.[0]?.trim();
  return [
    ...(/^[\p{Lu}\d]/u.test(text) ? [] : ['does not begin with a capital']),
    ...(text.endsWith('.') ? [] : ['does not end with a full stop']),
    ...(plural ? [`'${plural}'`] : []),
    ...words.map((word) => `'${word}'`),
  ];
}
