'use client';
import { portLabel, setField } from '../../../core/design';
import type { Bundle, Port } from '../../../core/design';
import { useBench, useSession } from '../../session/context';
import styles from './EdgeSettings.module.css';

type Switched = Pick<Port, 'edge' | 'autoEdge' | 'bpduGuard' | 'bpduFilter' | 'rootGuard' | 'loopGuard' | 'tcGuard'>;
const SETTINGS: readonly { field: keyof Switched; name: string; short?: string }[] = [
  { field: 'edge', name: 'edge' },
  { field: 'autoEdge', name: 'auto edge' },
  { field: 'bpduGuard', name: 'BPDU guard' },
  { field: 'bpduFilter', name: 'BPDU filter' },
  { field: 'rootGuard', name: 'root guard' },
  { field: 'loopGuard', name: 'loop guard' },
  { field: 'tcGuard', name: 'topology change guard', short: 'TC guard' },
];

/** Whether end devices are expected at a port, and which guards it carries. */
export function EdgeSettings({ element }: { element: Port | Bundle }) {
  const { edit } = useBench();
  const design = useSession((s) => s.design);
  const kind = 'members' in element ? 'bundle' : 'port';
  const label = kind === 'port' ? portLabel(design, element.id) : element.name;
  return (
    <span className={styles.edgeSettings}>
      {SETTINGS.map(({ field, name, short }) => (
        <label key={field} title={short && name}>
          <input
            type="checkbox"
            checked={element[field] ?? false}
            aria-label={`${name} at ${label}`}
            onChange={(e) =>
              edit(`${label}: ${name} ${e.target.checked ? 'on' : 'off'}`, [
                setField(kind, element.id, field, e.target.checked || null),
              ])
            }
          />{' '}
          {short ?? name}
        </label>
      ))}
    </span>
  );
}
