'use client';
import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { Chosen } from '../../core/editing';
import { applyEdits } from '../../core/design';
import { renameAction, thingName } from './actions';
import type { Cabling } from './useCabling';
import styles from './NameField.module.css';

/** The name of a thing, written where it stands. */
export function NameField({ cabling, thing, onClose }: { cabling: Cabling; thing: Chosen; onClose: () => void }) {
  const { design, chart, placeOf, run } = cabling;
  const [text, setText] = useState(() => thingName(design, thing));
  const [at, setAt] = useState<{ left: number; top: number } | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const place = placeOf(thing);
  useLayoutEffect(() => {
    const handle = chart.current;
    const parent = handle?.svg.parentElement?.getBoundingClientRect();
    if (!handle || !place || !parent) return;
    const { x, y } = handle.toWindow(place);
    setAt({
      left: Math.max(0, Math.min(parent.width - 170, x - parent.left - 80)),
      top: Math.max(0, Math.min(parent.height - 60, y - parent.top - 16)),
    });
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [place?.x, place?.y, chart]);
  useEffect(() => {
    if (!at) return;
    field.current?.focus();
    field.current?.select();
  }, [at]);
  const action = renameAction(design, thing, text.trim());
  const checked = action.edits.length > 0 ? applyEdits(design, action.edits) : null;
  const fault = checked && !checked.ok ? checked.faults[0]!.sentence : null;
  const done = useRef(false);
  const finish = (keep: boolean) => {
    if (done.current || (keep && fault)) return;
    done.current = true;
    if (keep) run(action);
    onClose();
    chart.current?.svg.focus();
  };
  if (!at) return null;
  return (
    <div className={styles.nameField} style={at}>
      <input
        ref={field}
        value={text}
        aria-label="Name"
        aria-invalid={fault !== null}
        onChange={(e) => setText(e.target.value)}
        onBlur={() => finish(!fault)}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Enter' || e.key === 'Tab') {
            e.preventDefault();
            finish(true);
          }
          if (e.key === 'Escape') finish(false);
        }}
      />
      {fault && (
        <p className="alarm small" role="alert">
          {fault}
        </p>
      )}
    </div>
  );
}
