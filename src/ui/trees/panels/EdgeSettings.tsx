'use client';
import { filterOf, hasBpduGuard, portLabel, setField, switchById } from '../../../core/design';
import type { Bundle, Design, Port } from '../../../core/design';
import { notesAt } from '../../../core/network';
import { useBench, useSession } from '../../session/context';
import styles from './EdgeSettings.module.css';

type Element = Port | Bundle;
type Switched =
  'edge' | 'autoEdge' | 'bpduGuard' | 'bpduFilter' | 'rootGuard' | 'loopGuard' | 'silenceGuard' | 'tcGuard';
const SETTINGS: readonly { field: Switched; name: string; short?: string }[] = [
  { field: 'edge', name: 'edge' },
  { field: 'autoEdge', name: 'auto edge' },
  { field: 'bpduGuard', name: 'BPDU guard' },
  { field: 'bpduFilter', name: 'BPDU filter' },
  { field: 'rootGuard', name: 'root guard' },
  { field: 'loopGuard', name: 'loop guard' },
  { field: 'silenceGuard', name: 'silence guard' },
  { field: 'tcGuard', name: 'topology change guard', short: 'TC guard' },
];

/** Whether a setting is on at a port, and whether it would be without a word of its own: by what its switch gives edge ports. */
function standing(design: Design, e: Element, field: Switched): { on: boolean; usual: boolean } {
  const s = switchById(design, e.switch);
  const byEdge = e.edge === true;
  if (field === 'bpduGuard') return { on: hasBpduGuard(design, e), usual: byEdge && s?.edgeGuard === true };
  if (field === 'bpduFilter') return { on: filterOf(design, e) !== 'none', usual: byEdge && s?.edgeFilter === true };
  return { on: e[field] ?? false, usual: false };
}

/** Whether end devices are expected at a port, which guards it carries, and what is to be known about them there. */
export function EdgeSettings({ element }: { element: Element }) {
  const { edit } = useBench();
  const design = useSession((s) => s.design);
  const kind = 'members' in element ? 'bundle' : 'port';
  const label = kind === 'port' ? portLabel(design, element.id) : element.name;
  const set = (field: Switched | 'filterYields', name: string, on: boolean, value: boolean | null) =>
    edit(`${label}: ${name} ${on ? 'on' : 'off'}`, [setField(kind, element.id, field, value)]);
  return (
    <span className={styles.edgeSettings}>
      {SETTINGS.map(({ field, name, short }) => {
        const { on, usual } = standing(design, element, field);
        return (
          <label key={field} title={short && name}>
            <input
              type="checkbox"
              checked={on}
              aria-label={`${name} at ${label}`}
              onChange={({ target: { checked } }) => set(field, name, checked, checked === usual ? null : checked)}
            />{' '}
            {short ?? name}
            {on && usual && element[field] === undefined && <span className="quiet small"> by the switch</span>}
          </label>
        );
      })}
      {element.bpduFilter && (
        <label className={styles.under}>
          <input
            type="checkbox"
            checked={element.filterYields ?? false}
            aria-label={`filter yields at ${label}`}
            onChange={({ target: { checked } }) => set('filterYields', 'filter yields', checked, checked || null)}
          />{' '}
          filter yields
        </label>
      )}
      {notesAt(design, element).map((note) => (
        <small key={note} className="quiet" role="note">
          {note}
        </small>
      ))}
    </span>
  );
}
