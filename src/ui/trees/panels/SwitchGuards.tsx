'use client';
import { useState } from 'react';
import { setField, switchById } from '../../../core/design';
import type { Switch } from '../../../core/design';
import { Choice } from '../../controls/DesignSettings';
import { Field } from '../../controls/Field';
import { useBench, useSession } from '../../session/context';
import styles from './EdgeSettings.module.css';

const EDGE = [
  { field: 'edgeGuard', name: 'BPDU guard at every edge port' },
  { field: 'edgeFilter', name: 'BPDU filter at every edge port, yielding' },
] as const;
const RECOVERY = [
  { field: 'guardRecovery', name: 'from BPDU guard, s' },
  { field: 'oneWayRecovery', name: 'from a one-way link, s' },
  { field: 'stormRecovery', name: 'from a storm, s' },
] as const;

const isSet = (s: Switch): boolean =>
  s.ageStep !== undefined || [...EDGE, ...RECOVERY].some(({ field }) => s[field] !== undefined);

/** What a switch gives its edge ports, when ports that were shut come back, and how it ages messages. */
export function SwitchGuards({ id }: { id: string }) {
  const { edit } = useBench();
  const s = useSession((state) => switchById(state.design, id)!);
  const [open, setOpen] = useState<boolean | null>(null);
  const set = (field: keyof Switch & string, value: unknown, words: string) =>
    edit(`${s.name}: ${words}`, [setField('switch', id, field, value)]);
  return (
    <details className={styles.switchGuards} open={open ?? isSet(s)} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary>Edge ports, recovery, age step</summary>
      {EDGE.map(({ field, name }) => (
        <label key={field}>
          <input
            type="checkbox"
            checked={s[field] ?? false}
            onChange={({ target: { checked } }) => set(field, checked || null, `${name} ${checked ? 'on' : 'off'}`)}
          />{' '}
          {name}
        </label>
      ))}
      <p className="quiet small">A port that was shut down recovers after 30 to 86 400 s.</p>
      <div className="bundle-fields">
        {RECOVERY.map(({ field, name }) => (
          <Field
            key={`${id} ${field}`}
            label={name}
            width={110}
            usual="by hand"
            value={String(s[field] ?? '')}
            onSet={(text) =>
              set(
                field,
                text.trim() === '' ? null : Number.isFinite(Number(text)) ? Number(text) : text,
                `recovery ${name} ${text || 'by hand'}`,
              )
            }
          />
        ))}
      </div>
      <Choice
        label="Age step"
        value={s.ageStep ?? 'second'}
        options={{ second: '1 s', fraction: '1/256 s' }}
        onPick={(value, words) => set('ageStep', value === 'second' ? null : value, `age step ${words}`)}
      />
    </details>
  );
}
