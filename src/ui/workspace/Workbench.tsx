'use client';
import { usePathname } from 'next/navigation';
import { useCallback, useEffect, useMemo, useState } from 'react';
import type { DesignHead, LoadedVariant } from '../../api/contract';
import { isAvailability } from '../../core/design';
import type { Session } from '../session/session';
import { noteOpened } from '../session/last-open';
import { useOpenSession } from '../session/useOpenSession';
import { NO_SELECTION, readView, sameRef, viewAddress } from '../session/view';
import type { Ref, View } from '../session/view';
import { CommandSearch } from './CommandSearch';
import { BenchContext, missingInView, useSession } from '../session/context';
import type { Bench, BenchDialog, ScopeChoice } from '../session/context';
import { PrintedTitle } from './PrintedTitle';
import { Header } from './Header';
import { takeFlash } from '../session/flash';
import { later } from '../controls/later';
import { useNotice } from '../controls/Notice';
import { useEdit } from './useEdit';
import { Tour } from './Tour';
import { useCommands } from './useCommands';
import type { Command } from '../session/commands';
import { isStage } from '../session/stages';
import type { StageId } from '../session/stages';
import { useComplaints } from '../session/useComplaints';
import { useDraft } from '../session/useDraft';
import { useSinceChoice } from '../session/since';
import { useReview } from '../session/useReview';
import type { Left } from '../session/useLeftBehind';
import { useStore } from 'zustand';
import { useStageIn, useStagesAhead } from './stages-ahead';

const ConflictDialog = later(() => import('./ConflictDialog').then((m) => m.ConflictDialog));
const LeftDialog = later(() => import('./LeftDialog').then((m) => m.LeftDialog));
const RefusedDialog = later(() => import('./RefusedDialog').then((m) => m.RefusedDialog));
const SelectionNote = later(() => import('./SelectionNote').then((m) => m.SelectionNote));
const HistoryDialog = later(() => import('./HistoryDialog').then((m) => m.HistoryDialog));
const KeysDialog = later(() => import('./KeysDialog').then((m) => m.KeysDialog));

interface Props {
  head: DesignHead;
  variant: LoadedVariant;
  stage: StageId;
  query: string;
}

/** A view with something else in it. A path was asked for between what was selected then. */
const changed = (was: View, change: Partial<View>): View => ({
  ...was,
  ...(change.selection ? { path: false } : {}),
  ...change,
});

/** What the page looks at, kept in the address bar: the view, and how to change it. */
function useView(query: string, head: DesignHead, variantId: string, stage: StageId) {
  const [view, setWholeView] = useState<View>(() => readView(new URLSearchParams(query)));
  useEffect(() => {
    const address = viewAddress(head.id, stage, variantId, view);
    if (address !== window.location.pathname + window.location.search) window.history.replaceState(null, '', address);
  }, [head.id, stage, variantId, view]);
  useEffect(() => noteOpened(head.id, Date.now()), [head.id]);
  const setView = useCallback((change: Partial<View>) => setWholeView((was) => changed(was, change)), []);
  const select = useCallback((ref: Ref | null, add = false) => {
    setWholeView((was) => {
      if (!ref) return changed(was, { selection: NO_SELECTION });
      if (!add) return changed(was, { selection: [ref] });
      const rest = was.selection.filter((r) => !sameRef(r, ref));
      return changed(was, { selection: rest.length < was.selection.length ? rest : [...rest, ref] });
    });
  }, []);
  /** To another stage without leaving the page: the session stays open, and Back leads back. */
  const go = useCallback(
    (to: StageId) => window.history.pushState(null, '', viewAddress(head.id, to, variantId, view)),
    [head.id, variantId, view],
  );
  return { view, setView, select, go };
}

/** What the page says when it opens: what the page before left to say, and what of the address is not there. */
function useFirstWords(session: Session, query: string, say: Bench['say']): void {
  useEffect(() => {
    const flash = takeFlash();
    if (flash) say(flash);
    const lost = missingInView(session.store.getState(), readView(new URLSearchParams(query)));
    if (lost) say({ text: lost, alarm: true });
  }, [session, query, say]);
}

/** The stage that the address names; it changes without a new page. */
function useStage(first: StageId): StageId {
  const asked = usePathname().split('/').at(-1) ?? '';
  return isStage(asked) ? asked : first;
}

/** Changes, made or tried out, and what is compared with. */
function useEditing(session: Session, say: Bench['say']) {
  const edit = useEdit(session, say);
  const trial = useDraft(session, edit, say);
  const since = useSinceChoice();
  return useMemo(() => ({ edit, ...trial, ...since }), [edit, trial, since]);
}

/** Findings are known in every stage; failures are swept where they are seen, and where a goal speaks of them. */
function useReviewing(session: Session, stage: StageId): Pick<Bench, 'review' | 'pairs' | 'setPairs'> {
  const design = useStore(session.store, (s) => s.design);
  const [pairs, setPairs] = useState(false);
  const swept = stage === 'review' || design.goals.some(isAvailability);
  const review = useReview(design, !swept ? 'findings' : pairs && stage === 'review' ? 'pairs' : 'singles');
  return useMemo(() => ({ review, pairs, setPairs }), [review, pairs]);
}

interface AskedProps {
  readonly dialog: BenchDialog | null;
  readonly commands: readonly Command[];
  readonly stage: StageId;
  readonly onClose: () => void;
}

/** The dialog that was asked for, of those that belong to no stage. */
function Asked({ dialog, commands, stage, onClose }: AskedProps) {
  switch (dialog) {
    case 'refused':
      return <RefusedDialog onClose={onClose} />;
    case 'keys':
      return <KeysDialog {...{ commands, stage }} onClose={onClose} />;
    case 'history':
      return <HistoryDialog onClose={onClose} />;
    case 'note':
      return <SelectionNote onClose={onClose} />;
    default:
      return null;
  }
}

/** Dialogs that come by themselves: two windows changed the same thing, a closed one left changes. */
function Unasked({ left, ...answers }: Left) {
  const conflict = useSession((s) => s.conflict);
  const [found] = left;
  return (
    <>
      {conflict && <ConflictDialog conflict={conflict} />}
      {found && <LeftDialog found={found} {...answers} />}
    </>
  );
}

/** What belongs to no stage: the dialog that was asked for, the tour, the title on paper. */
function Asides(props: AskedProps) {
  return (
    <>
      <Asked {...props} />
      <Tour stage={props.stage} />
      <PrintedTitle />
    </>
  );
}

/** An open design: one session, one view, the stage on top of both. */
export function Workbench({ head: initialHead, variant, stage: initialStage, query }: Props) {
  const [head, setHead] = useState(initialHead);
  const [scope, setScope] = useState<ScopeChoice>({ kind: 'this' });
  const [searching, setSearching] = useState(false);
  const [stageCommands, setStageCommands] = useState<readonly Command[]>([]);
  const { say, settle, shown } = useNotice();
  const [dialog, openDialog] = useState<BenchDialog | null>(null);
  const onAside = useCallback(
    (key: string) =>
      say({ text: `An entry of the browser's storage could not be read. It is set aside as ${key}.`, alarm: true }),
    [say],
  );
  const opened = useOpenSession(variant, onAside);
  const { session } = opened;
  const stage = useStage(initialStage);
  const { view, setView, select, go } = useView(query, head, variant.id, stage);

  useStagesAhead();
  useComplaints(session, say, settle);
  useFirstWords(session, query, say);
  const editing = useEditing(session, say);
  const reviewing = useReviewing(session, stage);
  const bench = useMemo<Bench>(
    () => ({
      session,
      head,
      setHead,
      variantId: variant.id,
      view,
      setView,
      select,
      ...editing,
      ...reviewing,
      say,
      scope,
      setScope,
      stage,
      go,
      openDialog,
      setStageCommands,
    }),
    [session, head, variant.id, view, setView, select, editing, reviewing, say, scope, stage, go],
  );
  const Stage = useStageIn(stage);
  // What sees an edit looks at the session itself.
  const shownStage = useMemo(() => <Stage />, [Stage]);
  const search = useCallback(() => setSearching(true), []);
  const commands = useCommands(bench, search, stageCommands);
  return (
    <BenchContext.Provider value={bench}>
      <div className="bench">
        <Header {...{ stage, commands }} onSearch={search} />
        {shownStage}
        {searching && <CommandSearch commands={commands} onClose={() => setSearching(false)} />}
        <Unasked {...opened} />
        <Asides {...{ dialog, commands, stage }} onClose={() => openDialog(null)} />
        {shown}
      </div>
    </BenchContext.Provider>
  );
}
