'use client';
import { editWords } from '../../core/design';
import type { Design, Edit } from '../../core/design';

const MOST_LINES = 6;

/** A change: what it was called, and what it sets. */
export function ChangeLines({ design, label, edits }: { design: Design; label: string; edits: readonly Edit[] }) {
  return (
    <li>
      {label}
      <ul className="quiet">
        {edits.slice(0, MOST_LINES).map((edit, i) => (
          <li key={i}>{editWords(design, edit)}</li>
        ))}
        {edits.length > MOST_LINES && <li>and {edits.length - MOST_LINES} more</li>}
      </ul>
    </li>
  );
}
