'use client';
import { useCallback, useState } from 'react';
import type { KeyboardEvent, PointerEvent } from 'react';
import { readStored, writeStored } from '../session/browser-store';
import styles from './Splitter.module.css';

const START = 232;
const LEAST = 120;
const KEY = 'knot-path.tables-height';

export interface DockHeight {
  readonly height: number;
  readonly set: (height: number) => void;
  readonly toggle: () => void;
  readonly show: () => void;
}

const stored = () => {
  const value = readStored('local', KEY, Number);
  return value !== null && Number.isFinite(value) ? value : START;
};

/** Height of the tables below the drawing; 0 when they are hidden. Kept in the browser. */
export function useDockHeight(): DockHeight {
  const [height, setHeight] = useState(stored);
  const set = useCallback((next: number) => {
    const most = window.innerHeight - 320;
    const kept = next < LEAST / 2 ? 0 : Math.round(Math.min(most, Math.max(LEAST, next)));
    setHeight(kept);
    writeStored('local', KEY, String(kept));
  }, []);
  const toggle = useCallback(() => setHeight((was) => (was === 0 ? START : 0)), []);
  const show = useCallback(() => setHeight((was) => (was === 0 ? START : was)), []);
  return { height, set, toggle, show };
}

/** The line between drawing and tables: dragged, or moved with the arrow keys. */
export function Splitter({ dock }: { dock: DockHeight }) {
  const onPointerDown = (event: PointerEvent) => {
    event.preventDefault();
    const bottom = window.innerHeight;
    const move = (e: globalThis.PointerEvent) => dock.set(bottom - e.clientY);
    const stop = () => {
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', stop);
    };
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', stop);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'ArrowUp') dock.set(dock.height + 20);
    else if (event.key === 'ArrowDown') dock.set(dock.height - 20);
    else if (event.key === 'Enter') dock.toggle();
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div
      className={styles.splitter}
      role="separator"
      aria-orientation="horizontal"
      aria-label="Height of the tables"
      aria-valuenow={dock.height}
      aria-valuemin={0}
      aria-valuemax={600}
      tabIndex={0}
      onPointerDown={onPointerDown}
      onKeyDown={onKeyDown}
      onDoubleClick={dock.toggle}
    />
  );
}
