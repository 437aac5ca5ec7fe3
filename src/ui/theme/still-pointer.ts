/**
 * A list that opens under the pointer takes the release of the press that opened it for a choice when drawing it took long.
 * A pointer that did not move chose nothing.
 */
const STILL = 6;
let pressed: { readonly x: number; readonly y: number; readonly on: EventTarget | null } | null = null;

if (typeof window !== 'undefined')
  window.addEventListener(
    'mousedown',
    ({ clientX: x, clientY: y, target }) => void (pressed = { x, y, on: target }),
    true,
  );

interface Release {
  readonly clientX: number;
  readonly clientY: number;
  readonly currentTarget: EventTarget & Node;
  stopPropagation(): void;
}

/** For the sheet of a list: lets a release pass that ends a press within it, or a pull onto it. */
export function swallowStillRelease(event: Release): void {
  if (!pressed) return;
  const within = pressed.on instanceof Node && event.currentTarget.contains(pressed.on);
  const moved = Math.hypot(event.clientX - pressed.x, event.clientY - pressed.y);
  if (!within && moved < STILL) event.stopPropagation();
}
