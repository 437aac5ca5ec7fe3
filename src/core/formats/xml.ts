/** The part of XML that GraphML needs: what is wrong with a text, and its elements, whatever a parser made of them. */
import { XMLValidator } from 'fast-xml-parser';
import { clipped, fileMessages as say } from '../messages';

export interface XmlElement {
  data?: unknown;
  port?: unknown;
  [attribute: `@_${string}`]: string | undefined;
}
export const recordOf = (value: unknown): Record<string, unknown> | null =>
  typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Record<string, unknown>) : null;

/** Elements of one name, whatever the parser has made of them: one, many, or text where elements belong. */
export const elementsOf = (value: unknown): XmlElement[] =>
  (Array.isArray(value) ? value : [value]).flatMap((v) => {
    if (typeof v === 'string') return { '#text': v } as XmlElement;
    return (recordOf(v) as XmlElement | null) ?? [];
  });

/** A reason not longer than can be read, without a full stop. What it repeats of the file stays between its quotes. */
export const shortened = (text: string): string => {
  const short = text.replace(/'([^]*)'/, (_, repeated: string) => `'${clipped(repeated, 120)}'`);
  return clipped(short, 200).replace(/[.]$/, '');
};

/** Levels of elements that are read: a graph has six. */
const DEEPEST = 60;

/** What is wrong with a text as XML, before a parser sees it that takes time or memory for it; null when nothing is. */
export function xmlFault(text: string): { sentence: string; row: number | null } | null {
  if (/<\?[^?]*$/.test(text.slice(-2000)) || /<\?(?![\s\S]*\?>)/.test(text.slice(-2000)))
    return { sentence: say['xml-ends-within']({ within: '<? … ?>' }), row: null };
  const open = text.lastIndexOf('<![CDATA[');
  if (open >= 0 && text.indexOf(']]>', open) < 0)
    return { sentence: say['xml-ends-within']({ within: '<![CDATA[ … ]]>' }), row: null };
  if (/<\/?\s*(__proto__|constructor|prototype)\b/.test(text)) return { sentence: say['xml-name'](), row: null };
  let depth = 0;
  for (const [tag] of text.matchAll(/<(?:\/[^>]*|[^!?/][^>]*)>/g)) {
    if (tag.startsWith('</')) depth--;
    else if (!tag.endsWith('/>')) depth++;
    if (depth > DEEPEST) return { sentence: say['xml-depth']({ levels: DEEPEST }), row: null };
  }
  try {
    const valid = XMLValidator.validate(text);
    return valid === true ? null : { sentence: say.xml({ reason: shortened(valid.err.msg) }), row: valid.err.line };
  } catch {
    return { sentence: say['xml-broken'](), row: null };
  }
}
