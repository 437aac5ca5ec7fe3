/** One thing to try for an availability goal: edits that belong together. */
import { nextPort } from '../../design';
import type { Design, Edit, Port } from '../../design';

export interface Step {
  readonly kind: 'vlans' | 'cable' | 'cables' | 'card' | 'mode' | 'duplex' | 'timers' | 'cost' | 'member';
  readonly edits: readonly Edit[];
}

export type NewId = (prefix: string) => string;

export const step = (kind: Step['kind'], edits: readonly Edit[]): Step[] => (edits.length > 0 ? [{ kind, edits }] : []);

/** A new port of a switch with the rate of another one, and with some of its settings. */
export function portLike(design: Design, like: Port, at: string, fields: readonly (keyof Port)[], newId: NewId): Port {
  const settings = Object.fromEntries(fields.flatMap((f) => (like[f] === undefined ? [] : [[f, like[f]]])));
  return { id: newId('port'), switch: at, ...nextPort(design, at), speed: like.speed, ...settings };
}
