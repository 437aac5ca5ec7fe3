/** What all gestures on the cabling share: who they work for, what lies under the pointer, marks over the drawing. */
import type { Note } from '../../core/design';
import type { Chosen } from '../../core/editing';
import type { Looks, Places } from '../chart/cabling-scene';
import type { Point } from '../chart/geometry';
import type { ChartHandle } from '../chart/hands';
import type { NoteDraft } from '../session/notes';
import type { Ref } from '../session/view';

export type Tool = 'select' | 'cable' | 'switch' | 'host' | 'segment' | 'paint' | 'note';

export interface GestureHost {
  readonly chart: () => ChartHandle | null;
  readonly tool: () => Tool;
  readonly looks: () => Looks;
  readonly places: () => Places;
  readonly selection: () => readonly Ref[];
  readonly selectMany: (refs: readonly Ref[]) => void;
  readonly moved: (to: ReadonlyMap<string, Point>) => void;
  readonly cabled: (from: Chosen, to: Chosen) => void;
  readonly cabledTo: (from: Chosen, at: Point) => void;
  /** Whether the first wire painted is painted on or off. */
  readonly paintsOn: (wire: string) => boolean;
  readonly painted: (wires: readonly string[], on: boolean) => void;
  readonly noteMoved: (id: string, place: Pick<Note, 'x' | 'y' | 'toX' | 'toY'>) => void;
  readonly noteBegun: (draft: NoteDraft) => void;
}

/** A press moves something only after this many pixels; before, it is a click. */
export const SLACK = 4;

/** The switch, host or segment under an element of the chart. */
export function thingAt(element: Element | null): Chosen | null {
  const found = element?.closest('[data-id]');
  if (!found || found.classList.contains('wire')) return null;
  const kind = found.getAttribute('data-kind');
  if (kind === 'port') return null;
  return kind === 'switch' || kind === 'host' || kind === 'segment'
    ? { kind, id: found.getAttribute('data-id')! }
    : null;
}

export const wireAt = (element: Element | null): string | null =>
  element?.closest('.wire')?.getAttribute('data-id') ?? null;

type Move = (event: PointerEvent) => void;

export interface Gesture {
  readonly move: Move;
  readonly end: Move;
  readonly giveUp: () => void;
}

/** The click that ends a drag selects nothing. */
export function swallowClick(): void {
  const swallow = (event: Event) => event.stopPropagation();
  window.addEventListener('click', swallow, { capture: true, once: true });
  setTimeout(() => window.removeEventListener('click', swallow, true), 0);
}

/** One path on the overlay, in place of what was there. */
export function drawPath(chart: ChartHandle, name: string, d: string): void {
  let path = chart.overlay.firstElementChild;
  if (!path || path.getAttribute('class') !== name) {
    path = document.createElementNS('http://www.w3.org/2000/svg', 'path');
    path.setAttribute('class', name);
    chart.overlay.replaceChildren(path);
  }
  path.setAttribute('d', d);
}
