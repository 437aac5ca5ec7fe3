'use client';
/** What every part of an open design reaches for. */
import { createContext, useContext } from 'react';
import { useStore } from 'zustand';
import type { Edit, Scope } from '../../core/design';
import type { SolvedTree } from '../../core/trees';
import type { Session, SessionState } from '../session/session';
import type { Ref, View } from '../session/view';
import type { DesignHead } from '../session/types';
import type { NoticeContent } from './Notice';

export interface Bench {
  readonly session: Session;
  readonly head: DesignHead;
  readonly variantId: string;
  readonly view: View;
  readonly setView: (change: Partial<View>) => void;
  /** Selects one thing; with `add`, besides what is selected, or takes it out again. */
  readonly select: (ref: Ref | null, add?: boolean) => void;
  /** Makes a change and says so when it is refused. True when it was made. */
  readonly edit: (label: string, edits: readonly Edit[]) => boolean;
  readonly say: (notice: NoticeContent) => void;
  readonly scope: ScopeChoice;
  readonly setScope: (scope: ScopeChoice) => void;
}

/** Which trees the settings in the panel are for. */
export type ScopeChoice = { kind: 'this' } | { kind: 'all' } | { kind: 'vlans'; text: string };

export const BenchContext = createContext<Bench | null>(null);

export function useBench(): Bench {
  const bench = useContext(BenchContext);
  if (!bench) throw new Error('useBench: outside an open design');
  return bench;
}

export function useSession<T>(select: (state: SessionState) => T): T {
  return useStore(useBench().session.store, select);
}

/** The tree in view: the one the address names, else the first; null when the design has none. */
export function treeInView(state: Pick<SessionState, 'solved'>, view: View): SolvedTree | null {
  return (view.tree !== null ? state.solved.byId.get(view.tree) : undefined) ?? state.solved.trees[0] ?? null;
}

export function useTree(): SolvedTree | null {
  const { view } = useBench();
  return useSession((s) => treeInView(s, view));
}

export type { Scope };
