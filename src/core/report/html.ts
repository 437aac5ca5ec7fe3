/** Pieces of HTML: what is put into them is escaped, unless it is a piece itself. */

export class Html {
  constructor(readonly text: string) {}
}

const ESCAPES: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' };
const escaped = (text: string): string => text.replace(/[&<>"']/g, (c) => ESCAPES[c]!);

type Part = Html | string | number | readonly Html[];

const textOf = (part: Part): string => {
  if (part instanceof Html) return part.text;
  if (typeof part === 'object') return part.map((p) => p.text).join('');
  return escaped(String(part));
};

/** A template of HTML. */
export const html = (strings: TemplateStringsArray, ...parts: readonly Part[]): Html =>
  new Html(strings.reduce((text, s, i) => `${text}${textOf(parts[i - 1] ?? '')}${s}`));

export const NOTHING = new Html('');

/** A table with a heading row; a sentence where there is no row. */
export function table(
  heads: readonly string[],
  rows: readonly (readonly (Html | string | number)[])[],
  none: string,
): Html {
  if (rows.length === 0) return html`<p class="quiet">${none}</p>`;
  return html`<table>
    <thead>
      <tr>
        ${heads.map((h) => html`<th>${h}</th>`)}
      </tr>
    </thead>
    <tbody>
      ${rows.map(
        (cells) =>
          html`<tr>
            ${cells.map((c) => html`<td>${c}</td>`)}
          </tr>`,
      )}
    </tbody>
  </table>`;
}

/** A whole page that needs nothing else: its title, its style sheet, and its body. */
export function page(title: string, style: string, body: Html): string {
  const named = html`<title>${title}</title>`;
  const head = `<meta charset="utf-8"><meta name="viewport" content="width=device-width">${named.text}<style>${style}</style>`;
  return `<!doctype html>\n<html lang="en"><head>${head}</head><body>${body.text}</body></html>\n`;
}
