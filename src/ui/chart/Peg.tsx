import { memo } from 'react';
import type { Role } from '../../core/trees';
import { translate } from './geometry';
import type { PegItem } from './scene';

export const ROLE_LETTER: Record<Role, string> = {
  root: 'R',
  designated: 'D',
  alternate: 'A',
  backup: 'B',
  disabled: '',
  none: '',
};

/** Shape of a role: R a shield, D a square, A and B a broken ring, down a cross, no part a dot. */
export function PegShape({ role }: { role: Role }) {
  switch (role) {
    case 'root':
      return <path className="peg-shape" d="M-7 -7H7V2.5L0 8L-7 2.5Z" />;
    case 'designated':
      return <rect className="peg-shape" x={-7} y={-7} width={14} height={14} />;
    case 'alternate':
    case 'backup':
      return <circle className="peg-shape" r={7.5} />;
    case 'disabled':
      return <path className="peg-shape" d="M-4 -4L4 4M4 -4L-4 4" />;
    case 'none':
      return <circle className="peg-shape" r={2.5} />;
  }
}

interface Props {
  readonly peg: PegItem;
  readonly selected: boolean;
  readonly moved: boolean;
}

/** A port on the edge of its plate, with the letter of its role. */
export const Peg = memo(function Peg({ peg, selected, moved }: Props) {
  const classes = ['peg', `peg-${peg.role}`, selected && 'is-selected', moved && 'has-moved'];
  return (
    <g className={classes.filter(Boolean).join(' ')} transform={translate(peg)} data-kind="port" data-id={peg.id}>
      <g transform={peg.crowded ? 'scale(0.62)' : undefined}>
        {moved && <circle className="ring" r={13} />}
        <PegShape role={peg.role} />
        {ROLE_LETTER[peg.role] && <text dy={3.6}>{ROLE_LETTER[peg.role]}</text>}
      </g>
    </g>
  );
});
