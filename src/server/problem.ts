/** A refusal that a request is answered with: status, code, sentence, and the faults behind it. */
import { formatPath } from '../core/design';
import { clipped } from '../core/messages';
import type { Fault } from '../core/design';
import { formatTableFault } from '../core/formats';
import type { TableFault } from '../core/formats';

export interface ProblemFault {
  path: string;
  sentence: string;
}

export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    sentence: string,
    readonly faults: readonly ProblemFault[] = [],
    readonly more: Record<string, unknown> = {},
  ) {
    super(sentence);
  }
}

const MOST_FAULTS = 100;

export const notFound = (what: string, id: string) =>
  new Problem(
    404,
    'not-found',
    `There is no ${what} '${clipped(id)}' here: it may have been deleted, or the address is mistyped.`,
  );

export function refused(faults: readonly Fault[]): Problem {
  const shown = faults.slice(0, MOST_FAULTS).map((f) => ({ path: formatPath(f.path), sentence: f.sentence }));
  return new Problem(422, faults[0]?.code ?? 'refused', shown[0]?.sentence ?? 'The change is refused.', shown);
}

export function refusedTable(faults: readonly TableFault[]): Problem {
  const shown = faults.slice(0, MOST_FAULTS).map((f) => ({
    path: [f.file, f.row === null ? null : `row ${f.row}`, f.column].filter((p) => p !== null).join(', '),
    sentence: f.sentence,
  }));
  const rest = faults.length - 1;
  const first = formatTableFault(faults[0]!);
  return new Problem(422, 'refused-table', rest > 0 ? `${first} And ${rest} more.` : first, shown);
}
