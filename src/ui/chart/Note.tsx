import { memo } from 'react';
import type { NoteItem } from './scene-items';
import { noteShape, numbersOf } from './note-shapes';
import type { NoteShape } from './note-shapes';
import { STILL } from './still';
import type { Register } from './Wire';
import styles from './Note.module.css';

interface Props {
  readonly note: NoteItem;
  readonly selected: boolean;
  readonly register: Register;
  /** Whether its size can be pulled. */
  readonly grip: boolean;
}

const LINE = 15;
const NOWHERE: NoteShape = {};

/** A note: its words on paper, with a frame, a dimension line or a line to what it is about. Where it is the drawing decides. */
export const Note = memo(function Note({ note, selected, register, grip }: Props) {
  const key = `note ${note.id}`;
  const still = STILL ? noteShape(note, numbersOf(note)) : NOWHERE;
  const corner = grip && note.loose && note.form !== 'text';
  return (
    <g
      ref={(element) => {
        register(key, element);
        return () => register(key, null);
      }}
      className={`note ${styles.note} ${selected ? styles.selected : ''}`}
      data-kind="note"
      data-id={note.id}
      role="note"
      aria-label={note.lines.join(' ')}
    >
      {note.frame && <rect className={`frame ${styles.frame}`} {...still.frame} />}
      {note.span && <path className={`span ${styles.span}`} {...still.span} />}
      {note.lead && <path className={`lead ${styles.lead}`} {...still.lead} />}
      <g className="words" {...still.words}>
        <g className={`note-scaled ${styles.scaled}`} data-form={note.form}>
          <rect className={styles.ground} width={note.width} height={note.height} />
          {note.lines.map((line, i) => (
            <text key={i} x={5} y={LINE * (i + 1) - 2}>
              {line}
            </text>
          ))}
        </g>
      </g>
      {corner && <circle className={`corner ${styles.corner}`} r={5} data-corner="" {...still.corner} />}
    </g>
  );
});
