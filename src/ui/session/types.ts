/** What the server answers, and how it refuses. */
import type { ApiFault, Step } from '../../api/contract';

export type {
  ApiFault,
  DeletedDesign,
  DesignHead,
  DesignRow,
  LoadedVariant,
  Past,
  StateDifference,
  Step,
} from '../../api/contract';

/** A refusal by the server, with its sentence and the places it names. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    sentence: string,
    readonly faults: readonly ApiFault[],
    readonly steps: readonly Step[],
  ) {
    super(sentence);
  }
}

/** The server was not reached, or could not do its work now: the same request may succeed later. */
export class Unreached extends Error {
  constructor(
    sentence: string,
    /** Milliseconds that the server asks to wait; null when it says nothing. */
    readonly retryAfter: number | null = null,
  ) {
    super(sentence);
  }
}
