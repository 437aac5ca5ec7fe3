'use client';
import { useCallback, useEffect, useState } from 'react';
import type { ReactNode } from 'react';
import { OneOf } from './OneOf';

const SIDES = [
  { id: 'before', name: 'before' },
  { id: 'after', name: 'after' },
] as const;
export type Side = (typeof SIDES)[number]['id'];

/** Calls `onPress` for the key B, outside of fields and dialogs. */
export function useSideKey(onPress: () => void): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing =
        event.target instanceof HTMLElement && event.target.closest('input, textarea, select, [role=dialog]');
      if (event.key.toLowerCase() !== 'b' || event.ctrlKey || event.metaKey || event.altKey || typing) return;
      onPress();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [onPress]);
}

/** Before or after something, changed by B as well; a new thing is shown after it first. */
export function useSide(of: unknown) {
  const [side, setSide] = useState<Side>('after');
  useEffect(() => setSide('after'), [of]);
  useSideKey(useCallback(() => setSide((s) => (s === 'after' ? 'before' : 'after')), []));
  return [side, setSide] as const;
}

interface Props {
  readonly side: Side;
  readonly onPick: (side: Side) => void;
  /** What is looked at, before the choice. */
  readonly lead: string;
  readonly children?: ReactNode;
}

/** Whether the network is shown before or after. */
export function Sides({ side, onPick, lead, children }: Props) {
  return (
    <OneOf
      label="Show the network"
      options={SIDES}
      value={side}
      onPick={onPick}
      lead={<span className="quiet">{lead} · </span>}
    >
      <kbd className="key">B</kbd> {children}
    </OneOf>
  );
}
