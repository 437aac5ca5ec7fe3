import type { ReactNode } from 'react';

interface Props<Id extends string> {
  /** What is chosen, for those who do not see it. */
  readonly label: string;
  readonly options: readonly { readonly id: Id; readonly name: ReactNode }[];
  readonly value: Id;
  readonly onPick: (id: Id) => void;
  readonly className?: string;
  /** What stands behind the choices in the same line. */
  readonly children?: ReactNode;
}

/** A choice of one among a few, all in sight. */
export function OneOf<Id extends string>({ label, options, value, onPick, className, children }: Props<Id>) {
  return (
    <div className={className} role="radiogroup" aria-label={label}>
      {options.map(({ id, name }) => (
        <button key={id} role="radio" className="tool" aria-checked={value === id} onClick={() => onPick(id)}>
          {name}
        </button>
      ))}
      {children}
    </div>
  );
}
