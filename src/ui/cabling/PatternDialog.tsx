'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { FormEvent } from 'react';
import type { Design } from '../../core/design';
import { PATTERNS, drawPattern, planOf } from '../../core/editing';
import type { PatternId } from '../../core/editing';
import { NAME_LENGTH, documentMessages as say } from '../../core/messages';
import { count, parseVlanRanges } from '../../core/standard';
import { speedCell } from '../../core/editing/tables';
import { newId } from '../session/new-id';
import type { Cabling } from './useCabling';
import styles from './PatternDialog.module.css';

/** A pattern as a small drawing: switches as squares, cables as lines. */
function PatternDrawing({
  pattern,
  count,
  width,
  height,
}: {
  pattern: PatternId;
  count: number;
  width: number;
  height: number;
}) {
  const { nodes, edges } = planOf(pattern, count);
  const xs = nodes.map((n) => n.x);
  const ys = nodes.map((n) => n.y);
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  const scale = Math.min(
    (width - 16) / Math.max(1, Math.max(...xs) - left),
    (height - 16) / Math.max(1, Math.max(...ys) - top),
  );
  const at = (i: number) => ({ x: 8 + (nodes[i]!.x - left) * scale, y: 8 + (nodes[i]!.y - top) * scale });
  return (
    <svg className={styles.patternDrawing} width={width} height={height} aria-hidden="true">
      {edges.map(([a, b], i) => (
        <line key={i} x1={at(a).x} y1={at(a).y} x2={at(b).x} y2={at(b).y} />
      ))}
      {nodes.map((n, i) => (
        <rect key={i} className={`tier-${n.tier}`} x={at(i).x - 3.5} y={at(i).y - 3.5} width={7} height={7} />
      ))}
    </svg>
  );
}

const TIERS = ['core', 'distribution', 'access'] as const;

const speedFault = (text: string): string | null => {
  const value = speedCell(text);
  return Number.isInteger(value) && (value as number) >= 1 && (value as number) <= 1_000_000 ? null : say.speed(text);
};

const nameFault = (name: string): string | null =>
  name.trim() === '' || name.length > NAME_LENGTH - 6 ? say.name(name) : null;

/** What is wrong with the number that a pattern asks for; null for nothing. */
const countFaultOf = ({ count }: (typeof PATTERNS)[number], n: number): string | null =>
  count && !(Number.isInteger(n) && n >= count.min && n <= count.max)
    ? `${count.label}: a whole number from ${count.min} to ${count.max}.`
    : null;

/** Below everything that is drawn already. */
const placeBelow = (design: Design) => ({
  x: 100,
  y: design.switches.length === 0 ? 60 : Math.max(...design.switches.map((s) => s.y ?? 0)) + 200,
});

/** What is asked for, what is wrong with it, and the pattern that comes of it. */
function usePattern({ design, run, selectMany }: Cabling, onClose: () => void) {
  const [id, setId] = useState<PatternId>('collapsed-core');
  const pattern = PATTERNS.find((p) => p.id === id)!;
  const [counts, setCounts] = useState<Partial<Record<PatternId, string>>>({});
  const [names, setNames] = useState({ core: 'core', distribution: 'dist', access: 'closet' });
  const [speeds, setSpeeds] = useState({ core: '10G', access: '1G' });
  const numbers = design.vlans.map((v) => v.number);
  const [vlans, setVlans] = useState(numbers.length > 1 && numbers.length < 40 ? numbers.join(',') : '');
  const typed = counts[id] ?? String(pattern.count?.start ?? 3);
  const count = Number(typed);
  const countFault = countFaultOf(pattern, count);
  const read = parseVlanRanges(vlans === 'all' ? '' : vlans);
  const vlanFault = read.ok ? null : say.vlanSet(vlans, read.part, read.reason);
  const wrong = [speedFault(speeds.core), speedFault(speeds.access), ...TIERS.map((t) => nameFault(names[t]))];
  const ready = [countFault, vlanFault, ...wrong].every((f) => f === null);
  /** For the drawing: the usual number where the one that was typed is wrong. */
  const shown = countFault ? (pattern.count?.start ?? 3) : count;
  const shape = planOf(id, shown);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!ready) return;
    const { edits, made } = drawPattern(
      design,
      {
        pattern: id,
        count,
        names: { core: names.core.trim(), distribution: names.distribution.trim(), access: names.access.trim() },
        coreSpeed: speedCell(speeds.core) as number,
        accessSpeed: speedCell(speeds.access) as number,
        vlans: vlans === 'all' ? '' : vlans,
        ...placeBelow(design),
      },
      newId,
    );
    if (run({ label: `Lay out: ${pattern.name}`, edits })) selectMany(made);
    onClose();
  };
  return {
    id,
    setId,
    pattern,
    shown,
    shape,
    ready,
    submit,
    count: { typed, set: (text: string) => setCounts({ ...counts, [id]: text }), fault: countFault },
    vlans: { typed: vlans, set: setVlans, fault: vlanFault },
    speed: (of: 'core' | 'access') => ({
      typed: speeds[of],
      set: (text: string) => setSpeeds({ ...speeds, [of]: text }),
      fault: speedFault(speeds[of]),
    }),
    name: (tier: (typeof TIERS)[number]) => ({
      typed: names[tier],
      set: (text: string) => setNames({ ...names, [tier]: text }),
      fault: nameFault(names[tier]),
    }),
  };
}

interface Asked {
  readonly typed: string;
  readonly set: (text: string) => void;
  readonly fault: string | null;
}

function AskedField({ label, of: { typed, set, fault } }: { label: string; of: Asked }) {
  return (
    <TextField
      fullWidth
      label={label}
      value={typed}
      onChange={(e) => set(e.target.value)}
      error={fault !== null}
      helperText={fault}
      slotProps={{ htmlInput: { className: 'mono' } }}
    />
  );
}

/** A pattern with its speeds, names and VLANs, asked in one step and seen before it is made. */
export function PatternDialog({ cabling, onClose }: { cabling: Cabling; onClose: () => void }) {
  const { id, setId, pattern, shown, shape, ready, submit, ...asked } = usePattern(cabling, onClose);
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md">
      <form onSubmit={submit}>
        <DialogTitle>Start from a pattern</DialogTitle>
        <DialogContent>
          <div className="patterns" role="radiogroup" aria-label="Pattern">
            {PATTERNS.map((p) => (
              <button
                key={p.id}
                type="button"
                role="radio"
                aria-checked={p.id === id}
                className="pattern"
                onClick={() => setId(p.id)}
              >
                <PatternDrawing pattern={p.id} count={p.count?.start ?? 3} width={104} height={66} />
                {p.name}
              </button>
            ))}
          </div>
          <div className={styles.patternForm}>
            <div className={styles.patternFields}>
              {pattern.count && <AskedField label={pattern.count.label} of={asked.count} />}
              <AskedField label="VLANs on all links (empty: all)" of={asked.vlans} />
              <AskedField label="Speed in the core" of={asked.speed('core')} />
              <AskedField label="Speed to access switches" of={asked.speed('access')} />
              {TIERS.filter((t) => shape.nodes.some((n) => n.tier === t)).map((t) => (
                <AskedField key={t} label={`Names, ${t}`} of={asked.name(t)} />
              ))}
            </div>
            <figure>
              <PatternDrawing pattern={id} count={shown} width={330} height={190} />
              <figcaption className="quiet">
                {count(shape.nodes.length, 'switch', 'switches')}, {count(shape.edges.length, 'link')}
              </figcaption>
            </figure>
          </div>
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={!ready}>
            Lay it out
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
