/** One thing to try for an availability goal: edits that belong together. */
import type { Edit } from '../../design';

export interface Step {
  readonly kind: 'vlans' | 'cable' | 'cables' | 'card' | 'mode' | 'duplex' | 'timers' | 'cost' | 'member';
  readonly edits: readonly Edit[];
}

export type NewId = (prefix: string) => string;

export const step = (kind: Step['kind'], edits: readonly Edit[]): Step[] => (edits.length > 0 ? [{ kind, edits }] : []);
