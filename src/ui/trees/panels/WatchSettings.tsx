'use client';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { portLabel, setField } from '../../../core/design';
import type { Bundle, Port } from '../../../core/design';
import { Field } from '../../controls/Field';
import { useBench, useSession } from '../../session/context';
import styles from './EdgeSettings.module.css';

const ONE_WAY = { '': 'not looked for', report: 'reported', shut: 'shuts the port' } as const;
const STORM = { drop: 'drops the rest', shut: 'shuts the port' } as const;

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
  const number = (field: 'helloTime' | 'oneWayInterval' | 'stormLimit', name: string) => (
    <Field
      key={`${element.id} ${field}`}
      label={name}
      width={64}
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
      {number('helloTime', 'hello time, s')}
      {kind === 'port' && (
        <>
          <span>
            <span className="quiet">one-way link</span>
            {choice('oneWay', 'one-way link', ONE_WAY, '')}
          </span>
          {(element as Port).oneWay && number('oneWayInterval', 'keepalive each, s')}
          {number('stormLimit', 'storm limit, %')}
          {(element as Port).stormLimit !== undefined && choice('stormAction', 'beyond it', STORM, 'drop')}
        </>
      )}
    </span>
  );
}
