/**
 * The session as a pure function: a state and an event give the next state and what is to be done. At most one request
 * is on its way at a time. Every change ends stored, kept for sending, refused with its reason, or in a conflict.
 */
import { advance, applyEdits, editsCollide } from '../../core/design';
import type { HistoryEntry } from '../../core/design';
import { replay, standing, withEdit } from './entry';
import type { Done, EditEntry, Entry } from './entry';
import type { Event, LeftOver, State } from './state';
import { Turn } from './turn';
import type { Outcome } from './turn';
import type { Step } from './types';

const FIRST_PAUSE = 1000;
const LONGEST_PAUSE = 30_000;

/** Steps whose inverse is remembered. */
const MOST_DONE = 500;

/** Milliseconds to wait after so many failures in a row. */
export const pauseAfter = (failures: number): number => Math.min(LONGEST_PAUSE, FIRST_PAUSE * 2 ** (failures - 1));

const remembered = (done: ReadonlyMap<number, Done>, revision: number, made: Done): ReadonlyMap<number, Done> => {
  const next = new Map(done).set(revision, made);
  if (next.size > MOST_DONE) next.delete(next.keys().next().value!);
  return next;
};

/** Takes one step into the stored design; false when it does not follow or does not apply. */
function takeStep(t: Turn, step: Step): boolean {
  if (step.revision !== t.s.revision + 1) return false;
  const applied = applyEdits(t.s.stored, step.edits);
  if (!applied.ok) return false;
  t.set({
    stored: applied.design,
    revision: step.revision,
    told: Math.max(t.s.told, step.revision),
    storedHistory: advance(t.s.storedHistory, step),
    done: remembered(t.s.done, step.revision, { edits: step.edits, inverse: applied.inverse }),
  });
  return true;
}

const stale = (t: Turn): void => {
  if (t.s.stale) return;
  t.set({ stale: true });
  t.effects.push({ type: 'reload' });
};

/** Puts changes that cannot be merged aside until one side is chosen; a second conflict joins the first. */
function setConflict(t: Turn, mine: readonly EditEntry[], theirs: readonly Step[], since: number): void {
  const { conflict } = t.s;
  if (mine.length === 0) return;
  t.set({
    conflict: conflict
      ? { ...conflict, mine: [...conflict.mine, ...mine], theirs: [...conflict.theirs, ...theirs] }
      : { mine, theirs, since },
  });
}

const collides = (entries: readonly Entry[], theirs: readonly Step[]): boolean => {
  const edits = theirs.flatMap((s) => s.edits);
  return entries.some((e) => e.kind === 'edit' && editsCollide(e.edits, edits));
};

/** Steps from the server: own ones leave the queue, others come in under it. */
function takeSteps(t: Turn, steps: readonly Step[]): void {
  const since = t.s.revision;
  const foreign: Step[] = [];
  for (const step of steps) {
    if (step.revision <= t.s.revision) continue;
    if (!takeStep(t, step)) return stale(t);
    const own = step.key !== null && t.s.queue.some((e) => e.key === step.key);
    if (own) t.set({ queue: t.s.queue.filter((e) => e.key !== step.key) });
    else foreign.push(step);
  }
  if (foreign.length === 0) return t.show();
  const { stored, storedHistory, done, queue } = t.s;
  const { refused } = replay({ design: stored, history: storedHistory, done }, queue);
  if (refused.length > 0 || collides(queue, foreign)) {
    setConflict(t, standing(queue), foreign, since);
    t.set({ queue: [] });
  }
  t.show(foreign.at(-1)!.label, 'theirs');
}

/**
 * Looks through what earlier pages left, where all steps since then are known. What was taken up while the question was
 * on its way may be older than the question: it waits for the next answer.
 */
function lookThrough(t: Turn, asked: number, steps: readonly Step[]): void {
  const list = t.s.left;
  if (list.length === 0) return;
  t.set({ left: list.filter(({ since }) => since < asked) });
  for (const { since, entries } of list) if (since >= asked) takeLeft(t, since, entries, steps);
}

function takeLeft(t: Turn, since: number, entries: readonly Entry[], steps: readonly Step[]): void {
  const keys = new Set(entries.map((e) => e.key));
  const storedKeys = new Set(steps.flatMap((s) => s.key ?? []));
  const open = entries.filter((e) => !storedKeys.has(e.key));
  const foreign = steps.filter((s) => s.revision > since && !keys.has(s.key ?? ''));
  if (open.length === 0) return;
  const { stored, storedHistory, done, queue } = t.s;
  const tried = replay({ design: stored, history: storedHistory, done }, [...queue, ...open]);
  if (collides(open, foreign) || tried.refused.length > 0) {
    setConflict(t, standing(open), foreign, since);
    return;
  }
  t.set({ queue: [...queue, ...open] });
  t.show(open.at(-1)!.label, 'edit');
}

function onEdit(t: Turn, { key, label, edits, design }: Extract<Event, { type: 'edit' }>): void {
  const entry: EditEntry = { kind: 'edit', key, label, edits };
  t.set({ queue: [...t.s.queue, entry], design, history: withEdit(t.s.history, { revision: -1, label, key }) });
  t.effects.push({ type: 'changed', label, kind: 'edit' });
}

function onMove(t: Turn, { type, key }: { type: 'undo' | 'redo'; key: string }): void {
  const top: HistoryEntry | undefined = t.s.history[type].at(-1);
  if (!top) return;
  const entry: Entry = { kind: type, key, label: top.label, target: top.key ?? top.revision };
  t.set({ queue: [...t.s.queue, entry] });
  t.show(top.label, type);
}

function onStored(t: Turn, { key, step }: Extract<Event, { type: 'stored' }>): void {
  const [head, ...rest] = t.s.queue;
  t.set({ call: null, failures: 0, reason: null });
  if (head?.key !== key) return;
  // Known already, from the steps of the server: only the confirmation was missing.
  if (step.revision <= t.s.revision) {
    t.set({ queue: rest });
    return t.show();
  }
  if (step.revision > t.s.revision + 1) return t.set({ told: Math.max(t.s.told, step.revision) });
  const shownAlready = head.kind === 'edit' || t.s.done.has(step.target ?? -1);
  if (!takeStep(t, step)) return stale(t);
  t.set({ queue: rest });
  if (!shownAlready) return t.show(step.label, step.kind === 'redo' ? 'redo' : 'undo');
  if (rest.length === 0) t.set({ history: t.s.storedHistory });
}

function onRefused(t: Turn, { key, code, sentence, steps }: Extract<Event, { type: 'refused' }>): void {
  t.set({ call: null, failures: 0, reason: null });
  if (code === 'restored') return stale(t);
  if (code === 'conflict') return takeSteps(t, steps);
  const head = t.s.queue.find((e) => e.key === key);
  t.set({ queue: t.s.queue.filter((e) => e.key !== key) });
  if (head?.kind === 'edit') t.refuse(head, sentence);
  t.complain(sentence);
  t.show(head?.label ?? '', 'refused');
}

function onFailed(t: Turn, { reason, retryAfter }: Extract<Event, { type: 'failed' }>): void {
  const failures = t.s.failures + 1;
  t.set({ call: null, failures, pausing: true, reason });
  t.effects.push({ type: 'wait', ms: Math.max(retryAfter ?? 0, pauseAfter(failures)) });
}

function onSteps(t: Turn, { since, steps }: Extract<Event, { type: 'steps' }>): void {
  t.set({ call: null, failures: 0, reason: null });
  const newest = steps.at(-1)?.revision ?? t.s.revision;
  // The server has less than it told of: it has been set back.
  if (newest < t.s.told && newest <= t.s.revision) t.set({ told: t.s.revision });
  takeSteps(t, steps);
  if (!t.s.stale) lookThrough(t, since, steps);
}

function onResolve(t: Turn, choice: 'mine' | 'theirs'): void {
  const { conflict } = t.s;
  if (!conflict) return;
  t.set({ conflict: null });
  if (choice === 'theirs') return;
  for (const entry of conflict.mine) {
    const applied = applyEdits(t.s.design, entry.edits);
    if (!applied.ok) {
      t.refuse(entry, applied.faults[0]!.sentence);
      t.complain(applied.faults[0]!.sentence);
    } else onEdit(t, { type: 'edit', ...entry, design: applied.design });
  }
}

function onHistory(t: Turn, event: Extract<Event, { type: 'history' }>): void {
  t.set({ loadingHistory: false });
  const field = event.kind === 'undo' ? 'undoBelow' : 'redoBelow';
  const { storedHistory, history } = t.s;
  // The stack may have been cleared since it was asked for.
  if (storedHistory[field] !== event.from) return;
  const more = <T extends State['history']>(h: T): T => ({
    ...h,
    [event.kind]: [...event.entries, ...h[event.kind]],
    [field]: event.below,
  });
  t.set({ storedHistory: more(storedHistory), history: history[field] === event.from ? more(history) : history });
}

function onResume(t: Turn, left: readonly LeftOver[], refused: State['refused']): void {
  t.set({
    left: [...t.s.left, ...left.filter((l) => l.entries.length > 0)],
    refused: [...t.s.refused, ...refused.filter((r) => !t.s.refused.some((known) => known.key === r.key))],
  });
}

/** The next state, and what is to be done. */
export function reduce(before: State, event: Event): Outcome {
  const t = new Turn(before);
  switch (event.type) {
    case 'edit':
      onEdit(t, event);
      break;
    case 'undo':
    case 'redo':
      onMove(t, event);
      break;
    case 'stored':
      onStored(t, event);
      break;
    case 'refused':
      onRefused(t, event);
      break;
    case 'steps':
      onSteps(t, event);
      break;
    case 'failed':
      onFailed(t, event);
      break;
    case 'retry':
      t.set({ pausing: false });
      break;
    case 'told':
      t.set({ told: Math.max(t.s.told, event.revision) });
      break;
    case 'epoch':
      if (event.epoch !== t.s.epoch) stale(t);
      break;
    case 'resume':
      onResume(t, event.kept.left, event.kept.refused);
      break;
    case 'resolve':
      onResolve(t, event.choice);
      break;
    case 'dismiss':
      t.set({ refused: t.s.refused.filter((r) => r.key !== event.key) });
      break;
    case 'kept':
      return [{ ...before, notKept: event.fault }, []];
    case 'history':
      onHistory(t, event);
      break;
  }
  return t.end(before);
}
