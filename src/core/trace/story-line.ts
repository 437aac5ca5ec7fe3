/** One line of the story of a run. */

export interface Line {
  /** Microseconds. */
  readonly at: number;
  readonly text: string;
  readonly kind: 'event' | 'port' | 'contact' | 'guard' | 'loop' | 'note';
}
