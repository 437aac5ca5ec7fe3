'use client';
/** What pointer and keys do on a chart. */
import type { KeyboardEvent, MouseEvent, PointerEvent } from 'react';
import type { Ref } from '../session/view';
import { neighbour, refOf } from './finding';
import type { Point } from './geometry';
import type { Hands } from './hands';
import type { PlateItem, Scene } from './scene-items';
import type { ChartView } from './useView';

interface Options {
  readonly scene: Scene;
  readonly selection: readonly Ref[];
  readonly onSelect: (ref: Ref | null, add: boolean) => void;
  readonly onOpen?: ((id: string) => void) | undefined;
  readonly titleOf: (ref: Ref) => string;
  readonly hands: Hands | undefined;
}

const thingAt = (event: MouseEvent): Element | null => (event.target as Element).closest('[data-id]');

/** The plate that stands for several switches, where an element is one. */
const foldAt = (scene: Scene, element: Element): PlateItem | undefined =>
  element.getAttribute('data-kind') === 'fold'
    ? scene.plates.find((p) => p.id === element.getAttribute('data-id'))
    : undefined;

/** Steps of the zoom by key. */
const CLOSER = 1.25;
const FARTHER = 0.8;

export function useChartEvents({ scene, selection, onSelect, onOpen, titleOf, hands }: Options, view: ChartView) {
  const { parts, transform, taken, scaleBy } = view;
  /** The place in the drawing that an event points at; null before anything is drawn. */
  const placeOf = (event: MouseEvent): Point | null => {
    if (!transform.current || !parts.svg.current) return null;
    const box = parts.svg.current.getBoundingClientRect();
    const [x, y] = transform.current.invert([event.clientX - box.left, event.clientY - box.top]);
    return { x, y };
  };
  const onPointerDownCapture = (event: PointerEvent) => {
    taken.current = event.button === 0 && hands !== undefined && hands.press(event.nativeEvent);
  };
  const onDoubleClick = (event: MouseEvent) => {
    const target = thingAt(event);
    if (target?.getAttribute('data-kind') === 'note') return hands?.openNote(target.getAttribute('data-id')!);
    const place = target ? null : placeOf(event);
    if (place) hands?.doubleClick(place);
  };
  const onClick = (event: MouseEvent) => {
    const target = thingAt(event);
    const add = event.shiftKey || event.ctrlKey || event.metaKey;
    const place = target ? null : placeOf(event);
    if (place && hands?.click(place)) return;
    if (!target) return add ? undefined : onSelect(null, false);
    const folded = foldAt(scene, target);
    if (!folded) return onSelect(refOf(target), add);
    if (!add) return onOpen?.(folded.id);
    for (const id of folded.fold!.switches) onSelect({ kind: 'switch', id }, true);
  };
  /** Names are made for what is pointed at only: a large chart has thousands of wires and ports. */
  const onMouseOver = (event: MouseEvent) => {
    const target = thingAt(event);
    if (!target) return;
    let title = target.querySelector(':scope > title');
    if (!title) {
      title = document.createElementNS('http://www.w3.org/2000/svg', 'title');
      target.prepend(title);
    }
    const folded = foldAt(scene, target);
    title.textContent = folded ? `${folded.spoken}. Click opens it.` : titleOf(refOf(target));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const folded = event.key === 'Enter' && foldAt(scene, event.target as Element);
    if (folded) {
      event.preventDefault();
      return onOpen?.(folded.id);
    }
    if (event.key.startsWith('Arrow')) {
      const at = selection.findLast((r) => r.kind === 'switch')?.id ?? null;
      const next = neighbour(scene, at, event.key);
      if (next) onSelect({ kind: 'switch', id: next }, event.shiftKey);
    } else if (event.key === '+' || event.key === '=') scaleBy(CLOSER);
    else if (event.key === '-') scaleBy(FARTHER);
    else return;
    event.preventDefault();
  };
  return { onPointerDownCapture, onDoubleClick, onClick, onMouseOver, onKeyDown };
}
