'use client';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { portLabel, setField } from '../../../core/design';
import type { Bundle, Port } from '../../../core/design';
import { Field } from '../../controls/Field';
import { Label } from '../../controls/Term';
import { useBench, useSession } from '../../session/context';
import styles from './EdgeSettings.module.css';

const ONE_WAY = { '': 'off', report: 'report', shut: 'shut down' } as const;
const STORM = { drop: 'drop the rest', shut: 'shut down' } as const;

const whole = (text: string): unknown =>
  text.trim() === '' ? null : Number.isFinite(Number(text)) ? Number(text) : text.trim();

/** What acts on a port over time alone: its hello time, keepalives, and how much broadcast it accepts. */
export function WatchSettings({ element }: { element: Port | Bundle }) {
  const { edit } = useBench();
  const design = useSession((s) => s.design);
  const kind = 'members' in element ? 'bundle' : 'port';
  const label = kind === 'port' ? portLabel(design, element.id) : element.name;
  const set = (field: string, value: unknown, words: string) =>
    edit(`${label}: ${words}`, [setField(kind, element.id, field as 'id', value)]);
  const number = (field: 'helloTime' | 'oneWayInterval' | 'stormLimit', name: string, usual: string) => (
    <Field
      key={`${element.id} ${field}`}
      label={name}
      width={112}
      usual={usual}
      value={String((element as Port)[field] ?? '')}
      onSet={(text) => set(field, whole(text), `${name} ${text}`)}
    />
  );
  const choice = (field: 'oneWay' | 'stormAction', name: string, options: Record<string, string>, usual: string) => (
    <Select
      value={(element as Port)[field] ?? usual}
      displayEmpty
      onChange={({ target: { value } }) => set(field, value === usual ? null : value, `${name} ${options[value]}`)}
      inputProps={{ 'aria-label': `${name} at ${label}` }}
    >
      {Object.entries(options).map(([key, words]) => (
        <MenuItem key={key} value={key}>
          {words}
        </MenuItem>
      ))}
    </Select>
  );
  return (
    <span className={styles.watchSettings}>
      {number('helloTime', 'hello time, s', 'as the root')}
      {kind === 'port' && (
        <>
          <span>
            <span className="quiet">
              <Label text="one-way detection" />
            </span>
            {choice('oneWay', 'one-way detection', ONE_WAY, '')}
          </span>
          {(element as Port).oneWay && number('oneWayInterval', 'keepalive interval, s', '1')}
          {number('stormLimit', 'storm limit, %', 'none')}
          {(element as Port).stormLimit !== undefined && choice('stormAction', 'beyond it', STORM, 'drop')}
        </>
      )}
    </span>
  );
}
