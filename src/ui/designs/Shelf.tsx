'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { api } from '../session/api';
import type { DesignRow } from '../session/types';
import { Thumb } from './Thumb';
import styles from './Shelf.module.css';

export interface ShelfItem extends Pick<DesignRow, 'name' | 'dots' | 'lines' | 'roots' | 'blocked'> {
  readonly id: string;
  readonly question: string;
  readonly stage: string;
  readonly query: Readonly<Record<string, string>>;
}

interface Props {
  readonly items: readonly ShelfItem[];
  /** Designs that there are, so that a copy gets a name of its own. */
  readonly taken: readonly string[];
  readonly onFault: (sentence: string) => void;
}

function freeName(name: string, taken: readonly string[]): string {
  for (let n = 1; ; n++) {
    const own = n === 1 ? name : `${name} ${n}`;
    if (!taken.includes(own)) return own;
  }
}

/** Small networks, each with the question that it answers; opened as copies. */
export function Shelf({ items, taken, onFault }: Props) {
  const router = useRouter();
  const [opening, setOpening] = useState<string | null>(null);
  const open = async (item: ShelfItem) => {
    setOpening(item.id);
    try {
      const head = await api.openExample(freeName(item.name, taken), item.id);
      const params = new URLSearchParams({ variant: head.variants[0]!.id, ...item.query });
      router.push(`/d/${encodeURIComponent(head.id)}/${item.stage}?${params}`);
    } catch (error) {
      setOpening(null);
      onFault(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <section className={styles.shelf} aria-label="Examples">
      <h2>Examples</h2>
      <p className="quiet">Small networks to learn on. Each opens as a copy of its own.</p>
      <div className={styles.items}>
        {items.map((item) => (
          <button
            key={item.id}
            className={styles.item}
            disabled={opening !== null}
            aria-label={`${item.name}: ${item.question}`}
            onClick={() => void open(item)}
          >
            <Thumb {...item} />
            <span>
              <b>{item.name}</b>
              {opening === item.id ? 'Opening…' : item.question}
            </span>
          </button>
        ))}
      </div>
    </section>
  );
}
