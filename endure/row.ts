/** One row of the figures. */

export interface Row {
  readonly what: string;
  readonly runs: string;
  readonly result: string;
  readonly good: boolean;
}
