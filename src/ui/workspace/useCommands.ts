'use client';
import { useColorScheme } from '@mui/material/styles';
import { useLayoutEffect, useMemo } from 'react';
import { TIERS } from '../../core/design';
import { FIT_EVENT, PATH_EVENT, WHY_EVENT } from '../session/commands';
import type { Command } from '../session/commands';
import type { Session } from '../session/session';
import { failAction, makeRootAction } from '../session/actions';
import type { Bench } from '../session/context';
import { STAGES } from '../session/stages';
import { treeInView } from '../session/context';
import { scopeOf } from '../session/scope';
import { BOARDS } from '../session/view';
import { bundleSelected } from './bundle-selected';
import { copyLink } from './copy-link';

const tell = (name: string) => () => window.dispatchEvent(new Event(name));

function stepTree(bench: Bench, by: 1 | -1): void {
  const { solved } = bench.session.store.getState();
  const now = treeInView({ solved }, bench.view);
  const at = solved.trees.findIndex((t) => t === now);
  const next = solved.trees[(at + by + solved.trees.length) % solved.trees.length];
  if (next) bench.setView({ tree: next.tree.id });
}

function makeRoot(bench: Bench, session: Session): void {
  const { solved } = session.store.getState();
  const of = treeInView({ solved }, bench.view);
  const [picked, ...others] = bench.view.selection.filter((r) => r.kind === 'switch');
  if (!of || !picked) return bench.say({ text: 'Select the switch that should become root first.' });
  if (others.length > 0)
    return bench.say({ text: `${others.length + 1} switches are selected, and a tree has one root: select that one.` });
  const scope = scopeOf(bench.scope, of, solved);
  if (!scope.ok) return bench.say({ text: scope.sentence, alarm: true });
  const { label, edits } = makeRootAction(solved, scope.scope, picked.id);
  if (edits.length === 0)
    bench.say({ text: `It is the root of ${bench.scope.kind === 'this' ? 'this tree' : 'these trees'} already.` });
  else bench.edit(label, edits);
}

function fail(bench: Bench): void {
  const { label, edits } = failAction(bench.session.store.getState().design, bench.view.selection);
  if (edits.length === 0) bench.say({ text: 'Select the link, port or switch that should fail first.' });
  else bench.edit(label, edits);
}

/** Of two selected places their path; of one or none the fields in which the two are named. */
function path({ view, setView, say }: Bench): void {
  const places = view.selection.filter((r) => r.kind === 'switch' || r.kind === 'host');
  if (view.selection.length > 2 || (view.selection.length === 2 && places.length < 2))
    return say({ text: 'Select the two switches or hosts between which the path should be shown.' });
  if (places.length === 2 && !view.path) return setView({ path: true });
  tell(PATH_EVENT)();
}

function note(bench: Bench): void {
  if (bench.view.selection.length > 0) return bench.openDialog('note');
  bench.say({ text: 'Select what the note is about first; the tool Note of the cabling stage puts one anywhere.' });
}

/** Commands of the trees stage: boards, goals, arrangement, roots and ledgers; those of a preview while there is one. */
function treeCommands(bench: Bench): Command[] {
  const { session, view, setView } = bench;
  return [
    ...(bench.draft
      ? [
          { id: 'apply', title: `Apply: ${bench.draft.label}`, keys: ['Enter'], run: bench.applyDraft },
          {
            id: 'side',
            title: 'Before or after the previewed change',
            keys: ['B'],
            run: () => bench.setDraftSide(bench.draft?.side === 'after' ? 'before' : 'after'),
          },
        ]
      : []),
    {
      id: 'next-board',
      title: 'Next view of the trees',
      keys: ['V'],
      run: () => {
        const at = BOARDS.findIndex((b) => b.id === view.board);
        setView({ board: BOARDS[(at + 1) % BOARDS.length]!.id });
      },
    },
    ...BOARDS.map(({ id, name }) => ({
      id: `board-${id}`,
      title: `Trees: ${name.toLowerCase()}`,
      keys: [],
      run: () => setView({ board: id }),
    })),
    {
      id: 'goals',
      title: 'Goals',
      keys: ['G'],
      run: () => setView({ panel: view.panel === 'goals' ? 'selection' : 'goals' }),
    },
    {
      id: 'arrange',
      title: view.arrangement === 'depth' ? 'Arrange as cabled' : 'Arrange by depth',
      keys: ['D'],
      run: () => setView({ arrangement: view.arrangement === 'depth' ? 'cabling' : 'depth' }),
    },
    {
      id: 'root',
      title: 'Make the selected switch root of this tree',
      keys: ['R'],
      run: () => makeRoot(bench, session),
    },
    { id: 'why', title: 'Why: go to the ledger', keys: ['W'], run: tell(WHY_EVENT) },
    { id: 'path', title: 'Path between two places', keys: ['P'], run: () => path(bench) },
  ];
}

/** Selecting switches all at once: every one, or those of a tier. */
function selections({ session, setView, stage }: Bench): Command[] {
  const pick = (tier: string | null) => () =>
    setView({
      selection: session.store
        .getState()
        .design.switches.filter((s) => tier === null || s.tier === tier)
        .map(({ id }) => ({ kind: 'switch' as const, id })),
    });
  return [
    // On the cabling stage the same keys select whatever is drawn.
    { id: 'all-switches', title: 'Select all switches', keys: stage === 'cabling' ? [] : ['Ctrl+A'], run: pick(null) },
    ...TIERS.map((tier) => ({
      id: `tier-${tier}`,
      title: `Select the switches of the ${tier} tier`,
      keys: [],
      run: pick(tier),
    })),
  ];
}

const inGroup = (group: string, commands: readonly Command[]): Command[] => commands.map((c) => ({ ...c, group }));

function listCommands(
  bench: Bench,
  search: () => void,
  setMode: (mode: 'light' | 'dark' | 'system') => void,
): Command[] {
  const { session, select } = bench;
  const everywhere: Command[] = [
    ...inGroup('Change', [
      { id: 'undo', title: 'Undo', keys: ['Ctrl+Z'], run: session.undo },
      { id: 'redo', title: 'Redo', keys: ['Ctrl+Shift+Z', 'Ctrl+Y'], run: session.redo },
      { id: 'history', title: 'History of this variant', keys: ['H'], run: () => bench.openDialog('history') },
      { id: 'bundle', title: 'Bundle the selected cables', keys: ['J'], run: () => bundleSelected(bench) },
      {
        id: 'note',
        title: 'Write or change a note about what is selected',
        keys: ['O'],
        run: () => note(bench),
      },
      { id: 'fail', title: 'Fail or restore what is selected', keys: ['X'], run: () => fail(bench) },
      { id: 'try-now', title: 'Try to save now', keys: [], run: session.tryNow },
    ]),
    ...inGroup('Select', [
      {
        id: 'clear',
        title: bench.draft ? 'Discard the previewed change' : 'Clear the selection',
        keys: ['Escape'],
        run: () => (bench.draft ? bench.dropDraft() : select(null)),
      },
      ...selections(bench),
    ]),
    ...inGroup('Look', [
      { id: 'next-tree', title: 'Next tree', keys: [']'], run: () => stepTree(bench, 1) },
      { id: 'previous-tree', title: 'Previous tree', keys: ['['], run: () => stepTree(bench, -1) },
      { id: 'fit', title: 'Fit the chart to the window', keys: ['F'], run: tell(FIT_EVENT) },
      { id: 'copy-link', title: 'Copy a link to this view', keys: [], run: () => void copyLink(bench) },
      { id: 'light', title: 'Light theme', keys: [], run: () => setMode('light') },
      { id: 'dark', title: 'Dark theme', keys: [], run: () => setMode('dark') },
      { id: 'system', title: 'System theme', keys: [], run: () => setMode('system') },
    ]),
    ...inGroup('Go', [
      { id: 'search', title: 'Search commands, switches and trees', keys: ['Ctrl+K', '/'], run: search },
      { id: 'keys', title: 'Keys of this screen', keys: ['?'], run: () => bench.openDialog('keys') },
      ...STAGES.map(({ id, name }, i) => ({
        id: `stage-${id}`,
        title: `Go to ${name}`,
        keys: [`Alt+${i + 1}`],
        run: () => bench.go(id),
      })),
    ]),
  ];
  return bench.stage === 'trees' ? [...treeCommands(bench), ...everywhere] : everywhere;
}

/** `Ctrl+Shift+Z`; letters in upper case. */
function keyName(event: KeyboardEvent): string {
  const key = event.key.length === 1 ? event.key.toUpperCase() : event.key;
  const ctrl = event.ctrlKey || event.metaKey;
  const shift = event.shiftKey && (ctrl || event.altKey || key.startsWith('Arrow'));
  return `${ctrl ? 'Ctrl+' : ''}${event.altKey ? 'Alt+' : ''}${shift ? 'Shift+' : ''}${key}`;
}

const TYPING =
  'input:not([type="radio"]):not([type="checkbox"]), textarea, [contenteditable="true"], [role="dialog"] *, [role="listbox"] *, [role="menu"] *';

/** Keys that mean the same while a field or a table has the focus. */
const EVEN_TYPING = new Set(['Ctrl+K', ...STAGES.map((_, i) => `Alt+${i + 1}`)]);

/** The commands of an open design, with their keys at work. */
export function useCommands(bench: Bench, search: () => void, ofStage: readonly Command[]): readonly Command[] {
  const { setMode } = useColorScheme();
  const commands = useMemo(
    () => [...ofStage, ...listCommands(bench, search, setMode)],
    [bench, search, setMode, ofStage],
  );
  // With the very drawing that shows a change, so that no key works on what was before it.
  useLayoutEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.defaultPrevented) return;
      const name = keyName(event);
      const typing = event.target instanceof Element && event.target.matches(TYPING);
      if (typing && !EVEN_TYPING.has(name)) return;
      const command = commands.find((c) => c.keys.includes(name));
      if (!command) return;
      // Enter on a button or a link presses it.
      if (name === 'Enter' && event.target instanceof Element && event.target.matches('button, a, summary')) return;
      event.preventDefault();
      command.run();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [commands]);
  return commands;
}
