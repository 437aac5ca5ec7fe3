/** The linkUse drawn on a canvas: thousands of cells, each filled, notched, half or empty. */
import { CELL } from '../../../core/analysis';
import type { LinkUse } from '../../../core/analysis';

export interface WeaveLayout {
  readonly cell: number;
  readonly row: number;
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

const SMALLEST = { cell: 3, row: 3 };
const LARGEST = { cell: 30, row: 26 };

/** From this size on cells have room for their names beside them. */
export const READABLE = 11;

/** Cells as large as the room allows, so that the whole linkUse is seen at once if it can be. */
export function layOutLinkUse(linkUse: LinkUse, room: { width: number; height: number }): WeaveLayout {
  const left = 168;
  const fit = (space: number, count: number, least: number, most: number) =>
    Math.min(most, Math.max(least, Math.floor(space / Math.max(1, count))));
  const cell = fit(room.width - left - 64, linkUse.columns.length, SMALLEST.cell, LARGEST.cell);
  const top = cell >= READABLE ? 112 : 64;
  const row = fit(room.height - top - 8, linkUse.rows.length, SMALLEST.row, LARGEST.row);
  return {
    cell,
    row,
    left,
    top,
    width: left + cell * linkUse.columns.length + (cell >= READABLE ? 64 : 8),
    height: top + row * linkUse.rows.length + 8,
  };
}

/** Column and row under a point; −1 outside. */
export function cellAt(layout: WeaveLayout, linkUse: LinkUse, x: number, y: number): { column: number; row: number } {
  const column = Math.floor((x - layout.left) / layout.cell);
  const row = Math.floor((y - layout.top) / layout.row);
  return {
    column: column >= 0 && column < linkUse.columns.length ? column : -1,
    row: row >= 0 && row < linkUse.rows.length ? row : -1,
  };
}

export interface WeaveInk {
  readonly hue: (row: number) => string;
  readonly ink: string;
  readonly second: string;
  readonly rule: string;
  readonly alarm: string;
  readonly wash: string;
  readonly label: string;
  readonly heading: string;
}

interface Names {
  readonly row: (row: number) => string;
  readonly column: (column: number) => string;
  /** The switch that a column belongs to, for headings where single columns are too narrow. */
  readonly group: (column: number) => string;
  readonly faulty: (column: number) => boolean;
}

/** Cells too small for a shape: what carries is full, so that idle links stand out as gaps from top to bottom. */
const TINY = 8;

function drawTiny(
  c: CanvasRenderingContext2D,
  kind: number,
  x: number,
  y: number,
  w: number,
  h: number,
  ink: WeaveInk,
  hue: string,
) {
  const height = h > 4 ? h - 1 : h;
  if (kind === CELL.half || kind === CELL.down) {
    c.fillStyle = ink.alarm;
    c.fillRect(x, y, w, height);
  } else if (kind === CELL.carries) {
    c.fillStyle = hue;
    c.fillRect(x, y, w, height);
  }
}

function drawCell(
  c: CanvasRenderingContext2D,
  kind: number,
  x: number,
  y: number,
  w: number,
  h: number,
  ink: WeaveInk,
  hue: string,
) {
  if (w < TINY || h < TINY) return drawTiny(c, kind, x, y, w, h, ink, hue);
  const [px, py, pw, ph] = [x + 1, y + 1, w - 2, h - 2];
  c.strokeStyle = c.fillStyle = hue;
  switch (kind) {
    case CELL.carries:
      c.fillRect(px, py, pw, ph);
      return;
    case CELL.blockedA:
    case CELL.blockedB: {
      const bite = Math.min(6, pw / 3);
      const [near, far] = kind === CELL.blockedA ? [px + 0.5, px + pw - 0.5] : [px + pw - 0.5, px + 0.5];
      const inward = kind === CELL.blockedA ? bite : -bite;
      c.beginPath();
      c.moveTo(near, py + 0.5);
      c.lineTo(far, py + 0.5);
      c.lineTo(far, py + ph - 0.5);
      c.lineTo(near, py + ph - 0.5);
      c.lineTo(near + inward, py + ph / 2);
      c.closePath();
      c.stroke();
      return;
    }
    case CELL.half:
      c.fillStyle = ink.alarm;
      c.fillRect(px, py + ph / 2, pw, ph / 2);
      return;
    case CELL.down:
      c.strokeStyle = ink.alarm;
      c.beginPath();
      c.moveTo(px + 1, py + 1);
      c.lineTo(px + pw - 1, py + ph - 1);
      c.moveTo(px + pw - 1, py + 1);
      c.lineTo(px + 1, py + ph - 1);
      c.stroke();
      return;
    default:
      c.fillStyle = ink.second;
      c.fillRect(x + w / 2 - 1, y + h / 2 - 1, 2, 2);
  }
}

/** As much of a text as fits, with an ellipsis. */
function shortened(c: CanvasRenderingContext2D, text: string, width: number): string {
  if (c.measureText(text).width <= width) return text;
  let end = text.length - 1;
  while (end > 1 && c.measureText(`${text.slice(0, end)}…`).width > width) end--;
  return `${text.slice(0, end)}…`;
}

function drawHeads(c: CanvasRenderingContext2D, linkUse: LinkUse, layout: WeaveLayout, ink: WeaveInk, names: Names) {
  const { cell, row, left, top } = layout;
  c.textBaseline = 'middle';
  linkUse.rows.forEach((_, r) => {
    if (row < READABLE && r % Math.ceil(READABLE / row) !== 0) return;
    c.font = ink.label;
    c.fillStyle = ink.ink;
    c.textAlign = 'right';
    c.fillText(shortened(c, names.row(r), left - 16), left - 10, top + r * row + row / 2);
  });
  if (cell >= READABLE)
    linkUse.columns.forEach((_, i) => {
      c.save();
      c.translate(left + i * cell + cell / 2, top - 8);
      c.rotate(-Math.PI / 3);
      c.font = ink.label;
      c.textAlign = 'left';
      c.fillStyle = names.faulty(i) ? ink.alarm : ink.ink;
      c.fillText(shortened(c, names.column(i), 122), 0, 0);
      c.restore();
    });
  else {
    let start = 0;
    let reach = 0;
    for (let i = 1; i <= linkUse.columns.length; i++) {
      if (i < linkUse.columns.length && names.group(i) === names.group(start)) continue;
      const x = left + start * cell;
      c.strokeStyle = ink.rule;
      c.beginPath();
      c.moveTo(x - 0.5, top - 16);
      c.lineTo(x - 0.5, layout.height);
      c.stroke();
      if (x >= reach) {
        c.save();
        c.translate(x + 4, top - 10);
        c.rotate(-Math.PI / 5);
        c.font = ink.label;
        c.textAlign = 'left';
        c.fillStyle = ink.second;
        c.fillText(names.group(start), 0, 0, 92);
        c.restore();
        reach = x + 22;
      }
      start = i;
    }
  }
}

/** Draws the whole linkUse; `at` marks a cell's row and column. */
export function drawLinkUse(
  canvas: HTMLCanvasElement,
  linkUse: LinkUse,
  layout: WeaveLayout,
  ink: WeaveInk,
  names: Names,
  at: { row: number; column: number },
) {
  const scale = window.devicePixelRatio || 1;
  canvas.width = Math.ceil(layout.width * scale);
  canvas.height = Math.ceil(layout.height * scale);
  const c = canvas.getContext('2d');
  if (!c) return;
  c.scale(scale, scale);
  c.clearRect(0, 0, layout.width, layout.height);
  const { cell, row, left, top } = layout;
  c.fillStyle = ink.wash;
  if (at.row >= 0) c.fillRect(left, top + at.row * row, cell * linkUse.columns.length, row);
  if (at.column >= 0) c.fillRect(left + at.column * cell, top, cell, row * linkUse.rows.length);
  drawHeads(c, linkUse, layout, ink, names);
  c.lineWidth = 1.2;
  linkUse.rows.forEach(({ cells }, r) => {
    const hue = ink.hue(r);
    cells.forEach((kind, i) => drawCell(c, kind, left + i * cell, top + r * row, cell, row, ink, hue));
  });
}
