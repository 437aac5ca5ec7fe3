'use client';
import { MODES, addElement, setField } from '../../core/design';
import type { Design, Mode } from '../../core/design';
import { MODE_WORDS } from '../../core/messages';
import { scriptOfPlan } from '../../core/plan';
import type { ChangePlan, Target } from '../../core/plan';
import { refName } from '../controls/chart-refs';
import { useBench, useSession } from '../session/context';
import { newId } from '../session/new-id';
import type { useQuestion } from './useQuestion';

type Asked = ReturnType<typeof useQuestion>;

/** Where the engineer works from: kept in the variant that is open, where the plan begins there. */
export function usePlace(
  from: Design | null,
  isOpen: boolean,
  chosen: string | null,
  setChosen: (id: string | null) => void,
) {
  const { edit } = useBench();
  const kept = from?.workplaces[0];
  const at = chosen ?? kept?.at ?? null;
  const setAt = (id: string) => {
    if (!isOpen) return setChosen(id === '' ? null : id);
    if (id === '') return kept && edit('No workplace', [{ type: 'remove', kind: 'workplace', id: kept.id }]);
    return edit('Workplace', [
      kept ? setField('workplace', kept.id, 'at', id) : addElement('workplace', { id: newId('workplace'), at: id }),
    ]);
  };
  return { at, setAt };
}

/** The two variants of a change. */
export function VariantChoice({ from, to, pick, options }: Asked['variants']) {
  const select = (end: 'from' | 'to', value: string) => (
    <label>
      {end}{' '}
      <select value={value} onChange={(e) => pick(end, e.target.value)}>
        {options.map((v) => (
          <option key={v.id} value={v.id}>
            {v.name}
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <>
      {select('from', from)}
      {select('to', to)}
    </>
  );
}

/** What is taken out and put back. */
export function TargetChoice({ target, setTarget }: Pick<Asked, 'target' | 'setTarget'>) {
  const design = useSession((s) => s.design);
  const links = design.links.filter((l) => 'port' in l.a && 'port' in l.b);
  const option = (kind: Target['kind'], id: string) => (
    <option key={`${kind} ${id}`} value={`${kind} ${id}`}>
      {refName(design, { kind, id })}
    </option>
  );
  return (
    <label>
      take out{' '}
      <select
        value={target ? `${target.kind} ${target.id}` : ''}
        onChange={(e) => {
          const [kind, ...id] = e.target.value.split(' ');
          setTarget({ kind: kind as Target['kind'], id: id.join(' ') });
        }}
      >
        <optgroup label="switches">{design.switches.map((s) => option('switch', s.id))}</optgroup>
        <optgroup label="bundles">{design.bundles.map((b) => option('bundle', b.id))}</optgroup>
        <optgroup label="links">{links.map((l) => option('link', l.id))}</optgroup>
      </select>
    </label>
  );
}

/** The mode that every switch is to run. */
export function ModeChoice({ mode, setMode }: Pick<Asked, 'mode' | 'setMode'>) {
  return (
    <label>
      to{' '}
      <select value={mode} onChange={(e) => setMode(e.target.value as Mode)}>
        {MODES.map((m) => (
          <option key={m} value={m}>
            {MODE_WORDS[m]}
          </option>
        ))}
      </select>
    </label>
  );
}

/** The whole plan as a script of the variant that it begins with. */
export function RehearsePlan({ plan, isOpen, title }: { plan: ChangePlan; isOpen: boolean; title: string }) {
  const { edit, go } = useBench();
  const design = useSession((s) => s.design);
  const rehearse = () => {
    const script = scriptOfPlan(design, plan, `plan ${title}`.slice(0, 60));
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
