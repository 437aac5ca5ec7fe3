import type { Role } from '../../core/trees';
import { settledState } from '../../core/trees';
import { RoleSign } from '../chart/Peg';

/** The peg of the chart, in a line of text. */
export function RoleMark({ role }: { role: Role }) {
  return (
    <svg className={`role peg peg-${role}`} viewBox="-9 -9 18 18" aria-hidden="true">
      <RoleSign role={role} />
    </svg>
  );
}

/** `alternate, blocked` */
export function roleWords(role: Role): string {
  if (role === 'none') return 'not in the tree';
  if (role === 'disabled') return 'down';
  if (role === 'disputed') return 'designated, blocked';
  return settledState(role) === 'discarding' ? `${role}, blocked` : role;
}
