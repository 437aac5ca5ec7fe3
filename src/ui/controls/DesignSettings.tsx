'use client';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import type { Edit } from '../../core/design';
import { BUNDLE_COST_WORDS, MODE_WORDS, SCALE_WORDS } from '../../core/messages';
import { useBench, useSession } from '../session/context';
import { Label } from './Term';

interface ChoiceProps {
  label: string;
  value: string;
  options: Record<string, string>;
  onPick: (value: string, words: string) => void;
}

/** A label with a choice of a few. */
export function Choice({ label, value, options, onPick }: ChoiceProps) {
  return (
    <div className="setting">
      <span>
        <Label text={label} />
      </span>
      <Select
        value={value}
        displayEmpty
        onChange={(e) => onPick(e.target.value, options[e.target.value] ?? '')}
        inputProps={{ 'aria-label': label }}
      >
        {Object.entries(options).map(([key, words]) => (
          <MenuItem key={key} value={key}>
            {words}
          </MenuItem>
        ))}
      </Select>
    </div>
  );
}

/** What holds for the design as a whole: which trees run, and how costs are counted. */
export function DesignSettings() {
  const { edit } = useBench();
  const mode = useSession((s) => s.design.mode);
  const costScale = useSession((s) => s.design.costScale);
  const bundleCost = useSession((s) => s.design.bundleCost);
  const set = (field: Extract<Edit, { type: 'settings' }>['field'], label: string) => (value: string, words: string) =>
    edit(`${label}: ${words}`, [{ type: 'settings', field, value }]);
  return (
    <section className="settings" aria-label="Settings of the design">
      <h3>Settings of the design</h3>
      <Choice label="Spanning tree" value={mode} options={MODE_WORDS} onPick={set('mode', 'Spanning tree')} />
      <Choice label="Cost scale" value={costScale} options={SCALE_WORDS} onPick={set('costScale', 'Cost scale')} />
      <Choice
        label="Bundle cost by the rate"
        value={bundleCost}
        options={BUNDLE_COST_WORDS}
        onPick={set('bundleCost', 'Bundle cost by the rate')}
      />
    </section>
  );
}
