/** What may be done with a chart from outside: things dragged, cables pulled, another placing previewed. */
import type { Point } from './geometry';
import type { Scene } from './scene-items';

/** What the pointer does in addition to panning and selecting. */
export interface Hands {
  /** Called with every press; true when it is taken, and the chart then stays where it is. */
  readonly press: (event: PointerEvent) => boolean;
  readonly doubleClick: (at: Point) => void;
  /** A double click on a note. */
  readonly openNote: (id: string) => void;
  /** A click on empty paper; true when it was taken. */
  readonly click: (at: Point) => boolean;
}

/** For those who draw with the chart. */
export interface ChartHandle {
  readonly svg: SVGSVGElement;
  /** A place in the window as a place in the drawing, and the other way. */
  readonly toDrawing: (clientX: number, clientY: number) => Point;
  readonly toWindow: (point: Point) => Point;
  /** Shows another placing of the same things, until the next render. */
  readonly preview: (scene: Scene) => void;
  /** Marks over the drawing: the cable being pulled, the frame, the lines that things snap to. */
  readonly overlay: SVGGElement;
}
