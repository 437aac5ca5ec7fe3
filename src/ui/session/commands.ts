/** Commands, and the events by which those that belong to a part of the page reach it. */
import type { TableId } from '../../core/editing/tables';

export interface Command {
  readonly id: string;
  readonly title: string;
  /** Heading in the menu of all commands; absent: those of the screen in view. */
  readonly group?: string;
  readonly keys: readonly string[];
  readonly run: () => void;
}

/** A column of a table that is asked for from elsewhere. */
export interface TablePlace {
  readonly table: TableId;
  readonly column: string;
}

let asked: TablePlace | null = null;
const TABLE_EVENT = 'knot-path:table';

/** Asks for a column of a table; the tables may only be shown afterwards. */
export function askForTable(place: TablePlace): void {
  asked = place;
  window.dispatchEvent(new Event(TABLE_EVENT));
}

/** Calls `onPlace` for what was asked for, and whenever something is. */
export function listenForTable(onPlace: (place: TablePlace) => void): () => void {
  const take = () => {
    if (asked) onPlace(asked);
    asked = null;
  };
  take();
  window.addEventListener(TABLE_EVENT, take);
  return () => window.removeEventListener(TABLE_EVENT, take);
}

export const FIT_EVENT = 'knot-path:fit';
export const WHY_EVENT = 'knot-path:why';
export const PATH_EVENT = 'knot-path:path';
