'use client';
/** What every part of an open design reaches for. */
import { createContext, useContext } from 'react';
import { useStore } from 'zustand';
import type { StoreApi } from 'zustand';
import { bundleById, hostById, linkById, noteById, portById, segmentById, switchById } from '../../core/design';
import type { Design, Edit } from '../../core/design';
import type { SolvedDesign, SolvedTree } from '../../core/trees';
import type { Session, SessionState } from './session';
import type { Ref, View } from './view';
import type { DesignHead } from '../../api/contract';
import type { NoticeContent } from './notice';
import type { Draft } from './draft';
import type { useReview } from './useReview';
import type { StageId } from './stages';
import type { Command } from './commands';

export interface Bench {
  readonly session: Session;
  readonly head: DesignHead;
  readonly setHead: (head: DesignHead) => void;
  readonly variantId: string;
  readonly view: View;
  readonly setView: (change: Partial<View>) => void;
  /** Selects one thing; with `add`, adds it to the selection or removes it. */
  readonly select: (ref: Ref | null, add?: boolean) => void;
  /** Makes a change and says so when it is refused. True when it was made. */
  readonly edit: (label: string, edits: readonly Edit[], known?: { from: Design; to: Design }) => boolean;
  /** Shows what a change would do without making it; what is wrong with it is said. True when it can be made. */
  readonly tryOut: (label: string, edits: readonly Edit[]) => boolean;
  /** The change that is tried out, and whether the chart shows the network with it. */
  readonly draft: Draft | null;
  readonly setDraftSide: (side: Draft['side']) => void;
  readonly applyDraft: () => void;
  readonly dropDraft: () => void;
  /** The earlier state that the network is compared with; null: the one before the last change. */
  readonly since: Since | null;
  readonly showSince: (label: string, design: Design) => void;
  readonly dropSince: () => void;
  readonly say: (notice: NoticeContent) => void;
  /** What is found in the design, what failures do to it, and how far that goes. */
  readonly review: ReturnType<typeof useReview>;
  /** Whether failures of two at a time are swept as well. */
  readonly pairs: boolean;
  readonly setPairs: (pairs: boolean) => void;
  readonly scope: ScopeChoice;
  readonly setScope: (scope: ScopeChoice) => void;
  readonly stage: StageId;
  readonly go: (stage: StageId) => void;
  /** Opens one of the dialogs that belong to no stage. */
  readonly openDialog: (dialog: BenchDialog) => void;
  /** Commands that only the stage in view has. */
  readonly setStageCommands: (commands: readonly Command[]) => void;
}

/** An earlier state to compare with, and what it is called. */
export interface Since {
  readonly label: string;
  readonly before: SolvedDesign;
}

export type BenchDialog = 'refused' | 'history' | 'keys' | 'note';

/** Which trees the settings in the panel are for. */
export type ScopeChoice = { kind: 'this' } | { kind: 'all' } | { kind: 'vlans'; text: string };

export const BenchContext = createContext<Bench | null>(null);

export function useBench(): Bench {
  const bench = useContext(BenchContext);
  if (!bench) throw new Error('useBench: outside an open design');
  return bench;
}

/** What a part of the page sees of the session where that is not the session as it is: see `Afterwards`. */
export const SeenContext = createContext<StoreApi<SessionState> | null>(null);

export function useSession<T>(select: (state: SessionState) => T): T {
  const { store } = useBench().session;
  return useStore(useContext(SeenContext) ?? store, select);
}

/** Whether some switch has a part in a tree: that of a VLAN which nothing carries has none. */
export const isPopulated = (of: SolvedTree): boolean => of.outcome.root.some((root) => root >= 0);

/** The tree in view: the one the address names, else the first that some switch has a part in; null when the design has none. */
export function treeInView({ solved }: Pick<SessionState, 'solved'>, view: View): SolvedTree | null {
  const named = view.tree !== null ? solved.byId.get(view.tree) : undefined;
  return named ?? solved.trees.find(isPopulated) ?? solved.trees[0] ?? null;
}

const FIND = {
  switch: switchById,
  port: portById,
  link: linkById,
  bundle: bundleById,
  segment: segmentById,
  host: hostById,
  note: noteById,
};

/** Whether something that the address, or an undone change, left selected is in the design. */
export const isThere = (design: Design, ref: Ref): boolean => FIND[ref.kind](design, ref.id) !== undefined;

/** A sentence when an address names a tree or a selection that this design does not have. */
export function missingInView({ design, solved }: Pick<SessionState, 'design' | 'solved'>, view: View): string | null {
  if (view.tree !== null && !solved.byId.has(view.tree)) {
    const first = solved.trees[0]?.tree.id;
    return `The address names a tree '${view.tree}', which this design does not have${first ? `: ${first} is shown` : ''}.`;
  }
  const lost = view.selection.find((ref) => !isThere(design, ref));
  return lost ? `The address selects a ${lost.kind} '${lost.id}', which this design does not have.` : null;
}

/** The network as it is shown: with the change that is tried out, if one is, else as it is. */
export function useShown(): SolvedDesign {
  const { draft } = useBench();
  const solved = useSession((s) => s.solved);
  return draft && draft.side === 'after' ? draft.solved : solved;
}

export function useTree(): SolvedTree | null {
  const { view } = useBench();
  return useSession((s) => treeInView(s, view));
}
