'use client';
import { useState } from 'react';
import { addElement, setField } from '../../core/design';
import type { Design } from '../../core/design';
import { planScript } from '../../core/plan';
import type { ChangePlan } from '../../core/plan';
import { useBench } from '../session/context';
import { newId } from '../session/new-id';

/** From the variant that is open to the next one, unless another is chosen. */
export function useChoice() {
  const { head, variantId } = useBench();
  const other = head.variants.find((v) => v.id !== variantId)!.id;
  const [from, setFrom] = useState(variantId);
  const [to, setTo] = useState(other);
  const nameOf = (id: string) => head.variants.find((v) => v.id === id)?.name ?? '';
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
  return { from, to, pick, title: `${nameOf(from)} → ${nameOf(to)}` };
}

/** Where the engineer works from: kept in the variant that is open, where the plan begins there. */
export function usePlace(from: Design | null, isOpen: boolean) {
  const { edit } = useBench();
  const [chosen, setChosen] = useState<string | null>(null);
  const kept = from?.workplaces[0];
  const at = (isOpen ? null : chosen) ?? kept?.at ?? null;
  const setAt = (id: string) => {
    if (!isOpen) return setChosen(id);
    if (id === '') return kept && edit('No workplace', [{ type: 'remove', kind: 'workplace', id: kept.id }]);
    return edit('Workplace', [
      kept ? setField('workplace', kept.id, 'at', id) : addElement('workplace', { id: newId('workplace'), at: id }),
    ]);
  };
  return { at: at === '' ? null : at, setAt };
}

export function VariantChoice({ from, to, pick }: ReturnType<typeof useChoice>) {
  const { head } = useBench();
  const select = (end: 'from' | 'to', value: string) => (
    <label>
      {end}{' '}
      <select value={value} onChange={(e) => pick(end, e.target.value)}>
        {head.variants.map((v) => (
          <option key={v.id} value={v.id}>
            {v.name}
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <>
      <strong>Change plan</strong>
      {select('from', from)}
      {select('to', to)}
    </>
  );
}

/** The whole plan as a script of the variant that it begins with. */
export function RehearsePlan({ plan, isOpen, title }: { plan: ChangePlan; isOpen: boolean; title: string }) {
  const { edit, go } = useBench();
  const rehearse = () => {
    const steps = plan.steps.map((s, i) => ({ edits: s.work.edits, label: `step ${i + 1}` }));
    const [first, last] = [plan.steps[0]!.before, plan.steps.at(-1)!.after];
    const { script } = planScript(first, last, steps, plan.pairs, `plan ${title}`.slice(0, 60));
    const value = { ...script, id: newId('script') };
    if (edit(`Script ${script.name}`, [{ type: 'add', kind: 'script', value, at: 0 }])) go('rehearsal');
  };
  return (
    <button
      className="tool"
      disabled={!isOpen}
      title={
        isOpen
          ? 'The plan on the timeline: go to any step and see the network there'
          : 'Open the variant that the plan begins with first'
      }
      onClick={rehearse}
    >
      Rehearse the plan
    </button>
  );
}

interface PlaceProps extends ReturnType<typeof usePlace> {
  readonly from: Design | null;
}

/** The host or switch that the engineer works from. */
export function PlaceChoice({ from, at, setAt }: PlaceProps) {
  return (
    <label>
      working from{' '}
      <select value={at ?? ''} onChange={(e) => setAt(e.target.value)}>
        <option value="">not said</option>
        {[...(from?.hosts ?? []), ...(from?.switches ?? [])].map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </select>
    </label>
  );
}
