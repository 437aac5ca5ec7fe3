import { memo } from 'react';
import type { Role } from '../../core/trees';
import type { PegItem } from './scene-items';
import { stillAt } from './still';
import type { Register } from './Wire';
import styles from './Peg.module.css';

export const ROLE_LETTER: Record<Role, string> = {
  root: 'R',
  designated: 'D',
  alternate: 'A',
  backup: 'B',
  master: 'M',
  disputed: 'D',
  disabled: '',
  none: '',
};

/** The letters as strokes: a large chart has thousands of them, and lines are laid out quicker than text. */
const LETTER_PATH: Partial<Record<Role, string>> = {
  root: 'M-2.3 3.7V-3.7H0.6A2 2 0 0 1 0.6 0.5H-2.3M0.5 0.5L2.8 3.7',
  designated: 'M-2.6 3.7V-3.7H-0.4A3.7 3.7 0 0 1 -0.4 3.7Z',
  disputed: 'M-2.6 3.7V-3.7H-0.4A3.7 3.7 0 0 1 -0.4 3.7Z',
  alternate: 'M-3 3.7L0 -3.7L3 3.7M-1.9 1.2H1.9',
  master: 'M-3.2 3.7V-3.7L0 0.6L3.2 -3.7V3.7',
  backup: 'M-2.4 0V-3.7H0.5A1.8 1.8 0 0 1 0.5 0H-2.4V3.7H0.8A1.8 1.8 0 0 0 0.8 0',
};

/** The sign of a role: its shape with its letter in it. */
export function RoleSign({ role }: { role: Role | 'port' }) {
  const letter = role === 'port' ? undefined : LETTER_PATH[role];
  return (
    <>
      <PegShape role={role} />
      {letter && <path className="letter" d={letter} />}
    </>
  );
}

/** Shape of a role: R a shield, D a square, A and B a broken ring, down a cross, no part a dot. */
function PegShape({ role }: { role: Role | 'port' }) {
  switch (role) {
    case 'port':
      return <rect className={styles.pegShape} x={-4.5} y={-4.5} width={9} height={9} />;
    case 'root':
      return <path className={styles.pegShape} d="M-7 -7H7V2.5L0 8L-7 2.5Z" />;
    case 'master':
      return (
        <>
          <path className={styles.pegShape} d="M-7 -7H7V2.5L0 8L-7 2.5Z" />
          <path className={styles.pegBar} d="M-8 -10H8" />
        </>
      );
    case 'designated':
      return <rect className={styles.pegShape} x={-7} y={-7} width={14} height={14} />;
    case 'alternate':
    case 'backup':
    case 'disputed':
      return <circle className={styles.pegShape} r={7.5} />;
    case 'disabled':
      return <path className={styles.pegShape} d="M-4 -4L4 4M4 -4L-4 4" />;
    case 'none':
      return <circle className={styles.pegShape} r={2.5} />;
  }
}

const LONGEST = 10;

/** The name of a port beside its cable, read along it. */
function PortName({ name, nx, ny }: { name: string; nx: number; ny: number }) {
  const text = name.length > LONGEST ? `${name.slice(0, LONGEST - 1)}…` : name;
  if (nx !== 0)
    return (
      <text className={styles.portName} x={nx * 8} y={-4} textAnchor={nx > 0 ? 'start' : 'end'}>
        {text}
      </text>
    );
  return (
    <text className={styles.portName} transform="rotate(-90)" x={-ny * 8} y={-3} textAnchor={ny > 0 ? 'end' : 'start'}>
      {text}
    </text>
  );
}

interface Props {
  readonly peg: PegItem;
  readonly selected: boolean;
  readonly moved: boolean;
  readonly register: Register;
}

const sameLooks = (a: Props, b: Props) =>
  a.selected === b.selected &&
  a.moved === b.moved &&
  a.peg.id === b.peg.id &&
  a.peg.role === b.peg.role &&
  a.peg.name === b.peg.name &&
  a.peg.boundary === b.peg.boundary &&
  a.peg.nx === b.peg.nx &&
  a.peg.ny === b.peg.ny &&
  a.peg.crowded === b.peg.crowded;

/** A port on the edge of its plate, with the letter of its role. */
export const Peg = memo(function Peg({ peg, selected, moved, register }: Props) {
  const classes = ['peg', `peg-${peg.role}`, selected && 'is-selected', moved && 'has-moved'];
  return (
    <g
      ref={(element) => {
        register(`port ${peg.key}`, element);
        return () => register(`port ${peg.key}`, null);
      }}
      className={classes.filter(Boolean).join(' ')}
      transform={stillAt(peg)}
      data-kind="port"
      data-id={peg.id}
    >
      <g transform={peg.crowded ? 'scale(0.62)' : undefined}>
        {moved && <circle className="ring" r={13} />}
        {peg.boundary && <path className="boundary" d={`M-11 -9V9M${peg.boundary === 1 ? '-14 -9V9' : '11 -9V9'}`} />}
        <RoleSign role={peg.role} />
        {peg.name !== undefined && <PortName name={peg.name} nx={peg.nx} ny={peg.ny} />}
      </g>
    </g>
  );
}, sameLooks);
