'use client';
import { useEffect, useId, useRef, useState } from 'react';
import type { Column } from '../../core/editing/tables';

/** Where the table goes on after an edit; `all`: every chosen cell gets the text. */
export type CellMove = 'down' | 'right' | 'all' | null;

interface Props {
  readonly column: Pick<Column<never>, 'title' | 'choices'>;
  readonly start: string;
  /** Whether the whole text is marked, to be typed over. */
  readonly whole: boolean;
  /** The text, or null when the edit was given up. */
  readonly onDone: (text: string | null, move: CellMove) => void;
}

/** The field in a cell that is being edited. */
export function CellEditor({ column, start, whole, onDone }: Props) {
  const [text, setText] = useState(start);
  const field = useRef<HTMLInputElement>(null);
  const done = useRef(false);
  const list = useId();
  useEffect(() => {
    field.current?.focus();
    if (whole) field.current?.select();
  }, [whole]);
  const finish = (value: string | null, move: CellMove) => {
    if (done.current) return;
    done.current = true;
    onDone(value, move);
  };
  return (
    <>
      <input
        ref={field}
        value={text}
        aria-label={column.title}
        list={column.choices ? list : undefined}
        onChange={(e) => setText(e.target.value)}
        onBlur={() => finish(text, null)}
        onPointerDown={(e) => e.stopPropagation()}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Escape') finish(null, null);
          else if (e.key === 'Enter') finish(text, e.ctrlKey || e.metaKey ? 'all' : 'down');
          else if (e.key === 'Tab') finish(text, 'right');
          else return;
          e.preventDefault();
        }}
      />
      {column.choices && (
        <datalist id={list}>
          {column.choices.filter(Boolean).map((c) => (
            <option key={c} value={c} />
          ))}
        </datalist>
      )}
    </>
  );
}
