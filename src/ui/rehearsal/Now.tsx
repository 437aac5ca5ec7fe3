'use client';
import { useMemo } from 'react';
import type { Design } from '../../core/design';
import { standingOut } from '../../core/trace';
import type { Trace } from '../../core/trace';
import styles from './Now.module.css';

/** What is wrong at the moment: ports that a guard holds, and for how long yet; frames that loop, and what that does. */
export function Now({ design, trace, at }: { design: Design; trace: Trace; at: number }) {
  const all = useMemo(() => standingOut(design, trace, at), [design, trace, at]);
  if (all.length === 0) return null;
  return (
    <section className={styles.nowStands} aria-label="At this moment">
      {all.slice(0, 5).map((one) => (
        <p key={`${one.kind} ${one.ports.join()} ${one.text.slice(0, 40)}`} className="sentence wrong">
          {one.text}
        </p>
      ))}
      {all.length > 5 && <p className="quiet">and {all.length - 5} more</p>}
    </section>
  );
}
