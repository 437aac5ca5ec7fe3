'use client';
/** The drawing as a file: what is on the sheet, whole, with its looks written out and its fonts taken along. */

const STYLES = [
  'fill',
  'fill-opacity',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linecap',
  'stroke-linejoin',
  'stroke-opacity',
  'font-family',
  'font-size',
  'font-weight',
  'text-anchor',
  'opacity',
] as const;
const MARGIN = 24;

/** Marks of the moment, not of the drawing. */
const PASSING = '.overlay, .halo, .grip, .hit, title, .ring';

/** Writes the looks that the style sheets give an element into the copy of it. */
function writeLooks(from: Element, to: Element): void {
  const looks = getComputedStyle(from);
  for (const name of STYLES) {
    const value = looks.getPropertyValue(name);
    if (value && value !== 'none' && value !== 'normal') to.setAttribute(name, value);
    else if (name === 'fill' && value === 'none') to.setAttribute(name, 'none');
  }
  // Words of notes are larger only as long as the whole is small.
  const passing = from.classList.contains('note-scaled');
  if (looks.transform !== 'none' && !passing && !from.hasAttribute('transform'))
    to.setAttribute('transform', looks.transform);
}

/** The font files that the page has loaded, as rules that carry them within. */
async function fontRules(): Promise<string> {
  const rules = [...document.styleSheets].flatMap((sheet) => {
    try {
      return [...sheet.cssRules]
        .filter((r): r is CSSFontFaceRule => r instanceof CSSFontFaceRule)
        .map((rule) => ({ rule, base: sheet.href ?? location.href }));
    } catch {
      return [];
    }
  });
  const loaded = [...document.fonts].filter((f) => f.status === 'loaded');
  const wanted = rules.filter(({ rule }) => {
    const value = (name: string) => rule.style.getPropertyValue(name).replace(/['"]/g, '').trim();
    return (
      /U\+0{0,4}-?0?0?FF|U\+0-FF|U\+\?\?/i.test(value('unicode-range')) &&
      loaded.some((f) => f.family.replace(/['"]/g, '') === value('font-family') && f.weight === value('font-weight'))
    );
  });
  const written = await Promise.all(
    wanted.map(async ({ rule, base }) => {
      const source = /url\("?([^")]+)"?\)/.exec(rule.style.getPropertyValue('src'))?.[1];
      if (!source) return '';
      const blob = await (await fetch(new URL(source, base))).blob();
      const data = await new Promise<string>((resolve) => {
        const reader = new FileReader();
        reader.onload = () => resolve(reader.result as string);
        reader.readAsDataURL(blob);
      });
      const { style } = rule;
      return `@font-face{font-family:${style.getPropertyValue('font-family')};font-weight:${style.getPropertyValue('font-weight')};src:url(${data})}`;
    }),
  );
  return written.join('');
}

export interface Picture {
  readonly svg: string;
  readonly width: number;
  readonly height: number;
}

const TITLE_HEIGHT = 30;
const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;');

/** The chart as an SVG file of its own, all of it, at scale 1, under a title. */
export async function pictureOf(chart: SVGSVGElement, title: string): Promise<Picture> {
  const sheet = chart.querySelector<SVGGElement>(':scope > g:not(.ruler)')!;
  const copy = sheet.cloneNode(true) as SVGGElement;
  const [from, to] = [[...sheet.querySelectorAll('*')], [...copy.querySelectorAll('*')]];
  from.forEach((element, i) => writeLooks(element, to[i]!));
  for (const element of copy.querySelectorAll(PASSING)) element.remove();
  for (const element of copy.querySelectorAll('*')) {
    for (const name of ['class', 'tabindex', 'aria-pressed', 'role', 'data-kind', 'data-grip'])
      element.removeAttribute(name);
  }
  copy.removeAttribute('transform');
  const box = sheet.getBBox();
  const [x, y] = [Math.floor(box.x - MARGIN), Math.floor(box.y - MARGIN - TITLE_HEIGHT)];
  const [width, height] = [Math.ceil(box.width + 2 * MARGIN), Math.ceil(box.height + 2 * MARGIN + TITLE_HEIGHT)];
  const { backgroundColor: paper, color, fontFamily } = getComputedStyle(document.body);
  const words = `<text x="${x + MARGIN}" y="${y + MARGIN + 4}" fill="${color}" font-family="${fontFamily.replace(/"/g, "'")}" font-size="14" font-weight="600">${escaped(title)}</text>`;
  const inner = new XMLSerializer().serializeToString(copy);
  const svg = [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${x} ${y} ${width} ${height}" width="${width}" height="${height}">`,
    `<style>${await fontRules()}</style>`,
    `<rect x="${x}" y="${y}" width="${width}" height="${height}" fill="${paper}"/>`,
    words,
    inner,
    '</svg>',
  ].join('');
  return { svg, width, height };
}

/** Pixels for a unit of the drawing in a PNG; less where the sheet would grow beyond what a canvas holds. */
const SHARPNESS = 2;
const LARGEST = 12_000;

export async function asPng({ svg, width, height }: Picture): Promise<Blob> {
  const scale = Math.min(SHARPNESS, LARGEST / width, LARGEST / height);
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(width * scale);
  canvas.height = Math.round(height * scale);
  const context = canvas.getContext('2d')!;
  context.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('The picture could not be drawn.'))), 'image/png'),
  );
}

/** Hands a file to the browser to be saved. */
export function saveFile(blob: Blob, name: string): void {
  const address = URL.createObjectURL(blob);
  saveFrom(address, name);
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}

/** Saves what is at an address; the page stays, even where the server is not reached. Without a name the server gives one. */
export function saveFrom(address: string, name = ''): void {
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
}
