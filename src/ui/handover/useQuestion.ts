'use client';
/** What a plan is asked for: a change between two variants, maintenance of one thing, or a migration to one mode. */
import { useEffect, useMemo, useState } from 'react';
import type { Design, Mode, ObservedNetwork } from '../../core/design';
import type { Target } from '../../core/plan';
import { useKeptReading } from '../controls/useKeptReading';
import { useBench, useSession } from '../session/context';
import { askBack, isAskedBack } from '../session/flash';
import type { Question } from './usePlan';
import { AS_BUILT, useEnds } from './useVariants';

export const QUESTIONS = [
  { id: 'change', name: 'Change', title: 'From one variant to another' },
  { id: 'maintenance', name: 'Maintenance', title: 'Take a switch, a link or a bundle out and put it back' },
  { id: 'migration', name: 'Migration', title: 'To one spanning tree mode on every switch' },
] as const;
export type QuestionId = (typeof QUESTIONS)[number]['id'];

/** From the variant that is open to the next one, or from the network as it was read to the one that is open, unless another is chosen. */
function useVariantChoice(read: ObservedNetwork | null) {
  const { head, variantId } = useBench();
  const other = head.variants.find((v) => v.id !== variantId)?.id ?? AS_BUILT;
  const [back] = useState(() => isAskedBack() || head.variants.length < 2);
  const [from, setFrom] = useState(back ? AS_BUILT : variantId);
  const [to, setTo] = useState(back ? variantId : other);
  useEffect(() => askBack(false), []);
  const options = [
    ...head.variants.map(({ id, name }) => ({ id, name })),
    ...(read ? [{ id: AS_BUILT, name: 'as built (read)' }] : []),
  ];
  const nameOf = (id: string) => options.find((v) => v.id === id)?.name ?? '';
  const pick = (end: 'from' | 'to', id: string) => {
    // The same at both ends is no plan: they change places.
    if (end === 'from') {
      if (id === to) setTo(from);
      setFrom(id);
    } else {
      if (id === from) setFrom(to);
      setTo(id);
    }
  };
  return { from, to, pick, options, title: `${nameOf(from)} → ${nameOf(to)}` };
}

/** What is selected, if it can be taken out; else the first switch. */
function usePicked(design: Design) {
  const { view } = useBench();
  const selected = view.selection.find((r) => r.kind === 'switch' || r.kind === 'link' || r.kind === 'bundle');
  const first = design.switches[0];
  const [target, setTarget] = useState<Target | null>(
    selected
      ? { kind: selected.kind as Target['kind'], id: selected.id }
      : first
        ? { kind: 'switch', id: first.id }
        : null,
  );
  return { target, setTarget };
}

export function useQuestion(at: string | null, temporary: boolean, round: number) {
  const { head, variantId } = useBench();
  const open = useSession((s) => s.design);
  const read = useKeptReading()?.network ?? null;
  const alone = head.variants.length < 2 && open.readings.length === 0;
  const [kind, setKind] = useState<QuestionId>(alone ? 'maintenance' : 'change');
  const variants = useVariantChoice(read);
  const ends = useEnds(variants.from, variants.to, read);
  const picked = usePicked(open);
  const [mode, setMode] = useState<Mode>('rstp');
  const { from, to } = ends;
  const { target } = picked;
  const question = useMemo<Question | null>(() => {
    const options = { temporary, ...(at === null ? {} : { at }) };
    if (kind === 'maintenance') return target && { ask: { kind, design: open, target }, options };
    if (kind === 'migration') return { ask: { kind, design: open, mode }, options };
    return from && to ? { ask: { kind, from, to }, options } : null;
    // A new round asks the same again.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [kind, from, to, target, mode, open, at, temporary, round]);
  const beginsOpen = kind !== 'change' || variants.from === variantId;
  return { question, kind, setKind, alone, variants, ends, ...picked, mode, setMode, beginsOpen };
}
