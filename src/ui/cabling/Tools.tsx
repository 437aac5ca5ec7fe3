'use client';
import MenuItem from '@mui/material/MenuItem';
import { useState } from 'react';
import { NotesMenu } from '../controls/NotesMenu';
import { OneOf } from '../controls/OneOf';
import type { Command } from '../session/commands';
import type { Tool } from './pointing';
import type { Cabling } from './useCabling';
import { rateWords } from '../../core/standard';
import { DropMenu } from '../controls/DropMenu';
import styles from './Tools.module.css';

const TOOLS: readonly { id: Tool; name: string; key: string; hint: string }[] = [
  { id: 'select', name: 'Move', key: 'V', hint: 'Drag things to move them, pull a cable from the dot at their corner' },
  { id: 'cable', name: 'Cable', key: 'C', hint: 'Drag from one thing to another' },
  { id: 'switch', name: 'Switch', key: 'S', hint: 'Click where switches should stand' },
  { id: 'host', name: 'Host', key: 'H', hint: 'Click where hosts should stand' },
  { id: 'segment', name: 'Segment', key: 'G', hint: 'Click where a hub or unmanaged switch should stand' },
  {
    id: 'paint',
    name: 'Paint VLAN',
    key: 'B',
    hint: 'Drag along links to put the VLAN in view on them, or to take it off',
  },
  {
    id: 'note',
    name: 'Note',
    key: 'E',
    hint: 'Click where it belongs, drag a box on the paper, or drag from one thing to another for a distance',
  },
];

export const toolByKey = TOOLS;

const SPEEDS = [100, 1000, 2500, 10_000, 25_000, 40_000, 100_000];
const TIERS = ['core', 'distribution', 'access', ''] as const;

interface Props {
  readonly cabling: Cabling;
  readonly commands: readonly Command[];
}

/** Tools over the drawing: what the pointer does, and what new things are like. */
export function Tools({ cabling, commands }: Props) {
  const { tool, setTool, speed, setSpeed, tier, setTier } = cabling;
  return (
    <div className="tools">
      <OneOf
        label="What the pointer does"
        className={styles.toolsGroup}
        options={TOOLS.map((t) => ({ ...t, title: `${t.hint} (${t.key})` }))}
        value={tool}
        onPick={setTool}
      />
      {(tool === 'cable' || tool === 'select') && (
        <label className={styles.toolsSetting}>
          <span className="quiet">new cables</span>
          <select value={speed} onChange={(e) => setSpeed(Number(e.target.value))} aria-label="Speed of new cables">
            {SPEEDS.map((s) => (
              <option key={s} value={s}>
                {rateWords(s)}
              </option>
            ))}
          </select>
        </label>
      )}
      {(tool === 'switch' || tool === 'select') && (
        <label className={styles.toolsSetting}>
          <span className="quiet">new switches</span>
          <select
            value={tier ?? ''}
            onChange={(e) => setTier(e.target.value as typeof tier)}
            aria-label="Tier of new switches"
          >
            {TIERS.map((t) => (
              <option key={t} value={t}>
                {t === '' ? 'no tier' : t}
              </option>
            ))}
          </select>
        </label>
      )}
      <span className="grow" />
      <NotesMenu />
      <CommandMenu label="Arrange" commands={commands.filter((c) => c.id.startsWith('arrange-'))} />
      <CommandMenu label="More" commands={commands.filter((c) => c.id.startsWith('do-'))} />
    </div>
  );
}

/** A button with the commands of one kind below it, with their keys. */
function CommandMenu({ label, commands }: { label: string; commands: readonly Command[] }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <button className="tool" aria-haspopup="menu" onClick={(e) => setAnchor(e.currentTarget)}>
        {label} <span aria-hidden="true">▾</span>
      </button>
      <DropMenu at={anchor} onClose={() => setAnchor(null)}>
        {commands.map((c) => (
          <MenuItem
            key={c.id}
            onClick={() => {
              setAnchor(null);
              c.run();
            }}
          >
            <span style={{ flex: 1, paddingRight: 24 }}>{c.title}</span>
            {c.keys[0] && <kbd className="key">{c.keys[0]}</kbd>}
          </MenuItem>
        ))}
      </DropMenu>
    </>
  );
}
