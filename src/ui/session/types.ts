/** What the server says, as the interface needs it. */
import type { Design, Edit, History } from '../../core/design';

export interface VariantHead {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
}

export interface DesignHead {
  readonly id: string;
  readonly name: string;
  readonly changedAt: number;
  readonly variants: readonly VariantHead[];
}

export interface DesignRow extends DesignHead {
  readonly switches: number;
  readonly links: number;
  readonly trees: number;
  readonly dots: readonly (readonly [number, number])[];
  readonly lines: readonly (readonly [number, number])[];
}

export interface LoadedVariant {
  readonly id: string;
  readonly designId: string;
  readonly name: string;
  readonly revision: number;
  readonly design: Design;
  readonly history: History;
}

export interface Step {
  readonly revision: number;
  readonly kind: 'edit' | 'undo' | 'redo';
  readonly target: number | null;
  readonly label: string;
  readonly edits: readonly Edit[];
  readonly client: string;
}

export interface ApiFault {
  readonly path: string;
  readonly sentence: string;
}

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
