import type { ReactNode } from 'react';

export interface Choice<Id extends string> {
  readonly id: Id;
  readonly name: ReactNode;
  /** What it does, when pointed at. */
  readonly title?: string;
  readonly disabled?: boolean;
}

interface Props<Id extends string> {
  /** What is chosen, for those who do not see it. */
  readonly label: string;
  readonly options: readonly Choice<Id>[];
  readonly value: Id;
  readonly onPick: (id: Id) => void;
  readonly className?: string;
  /** What stands before the choices in the same line. */
  readonly lead?: ReactNode;
  /** What stands behind the choices in the same line. */
  readonly children?: ReactNode;
}

/** A choice of one among a few, all in sight. */
export function OneOf<Id extends string>({ label, options, value, onPick, className, lead, children }: Props<Id>) {
  return (
    <div className={className} role="radiogroup" aria-label={label}>
      {lead}
      {options.map(({ id, name, title, disabled }) => (
        <button
          key={id}
          role="radio"
          className="tool"
          aria-checked={value === id}
          title={title}
          disabled={disabled}
          onClick={() => onPick(id)}
        >
          {name}
        </button>
      ))}
      {children}
    </div>
  );
}
