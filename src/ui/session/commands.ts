/** Commands, and the events by which those that belong to a part of the page reach it. */
export interface Command {
  readonly id: string;
  readonly title: string;
  readonly keys: readonly string[];
  readonly run: () => void;
}

export const FIT_EVENT = 'knot-path:fit';
export const WHY_EVENT = 'knot-path:why';
export const PATH_EVENT = 'knot-path:path';
