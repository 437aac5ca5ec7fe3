'use client';
import { useMemo, useState } from 'react';
import { z } from 'zod';
import { applyEdits, switchById } from '../../../core/design';
import type { Mode } from '../../../core/design';
import { endWords } from '../../../core/goals';
import { advise, protocolLoadOf, inMode } from '../../../core/analysis';
import type { ProtocolLoad } from '../../../core/analysis';
import { solveDesign } from '../../../core/trees';
import { readStored, writeStored } from '../../session/browser-store';
import { useSession } from '../../session/context';
import { MODE_WORDS } from '../../../core/messages';
import { count } from '../../../core/standard';

const MODES: readonly Mode[] = ['per-vlan-rstp', 'per-vlan-stp', 'rstp', 'stp', 'mstp'];

const LIMITS = [
  { id: 'trees', words: 'trees on a switch', otherwise: 128 },
  { id: 'ports', words: 'ports times trees on a switch', otherwise: 4000 },
  { id: 'bpdus', words: 'BPDUs each second on a switch', otherwise: 1000 },
  { id: 'link', words: 'BPDUs each second on a link', otherwise: 200 },
] as const;
type LimitId = (typeof LIMITS)[number]['id'];
const STORE = 'knot-path.limits';
const limitsSchema = z.partialRecord(z.enum(['trees', 'ports', 'bpdus', 'link']), z.number().positive());

type Limits = Readonly<Record<LimitId, number>>;

function storedLimits(): Limits {
  const usual = Object.fromEntries(LIMITS.map((l) => [l.id, l.otherwise])) as Record<LimitId, number>;
  const own = readStored('local', STORE, (text) => limitsSchema.parse(JSON.parse(text)));
  return { ...usual, ...own };
}

/** What each mode asks of the switches at a hello time. */
function useLoads(hello: number): readonly { load: ProtocolLoad; note: string }[] {
  const solved = useSession((s) => s.solved);
  const { design } = solved.topology;
  return useMemo(
    () =>
      MODES.map((mode): { load: ProtocolLoad; note: string } => {
        // Without a region of its own the grouping that keeps all ways stands for MSTP.
        const grouping = mode === 'mstp' && design.regions.length === 0 ? advise(solved, 64) : null;
        const grouped = grouping ? applyEdits(design, grouping.edits) : null;
        const changed = grouped?.ok ? grouped.design : inMode(design, mode);
        const note = grouping ? `, ${count(grouping.instances.length, 'instance')} as advised` : '';
        return { load: protocolLoadOf(solveDesign(changed), hello), note };
      }),
    [solved, design, hello],
  );
}

/** What each mode asks of the switches, against limits that can be set. */
export function Worksheet() {
  const [limits, setLimits] = useState(storedLimits);
  const [hello, setHello] = useState(2);
  const rows = useLoads(hello);
  const set = (id: LimitId, value: number) => {
    const next = { ...limits, [id]: Math.max(1, Math.round(value) || 1) };
    setLimits(next);
    writeStored('local', STORE, JSON.stringify(next));
  };
  return (
    <div className="worksheet">
      <table className="rows">
        <Heads limits={limits} onLimit={set} hello={hello} onHello={setHello} />
        <tbody>
          {rows.map(({ load, note }, i) => (
            <ModeRow key={MODES[i]} mode={MODES[i]!} load={load} note={note} limits={limits} />
          ))}
        </tbody>
      </table>
      <p className="quiet small">
        The busiest switch or link of each mode, after convergence. A designated port sends one BPDU per hello time and
        tree; with MST one BPDU covers all instances. The limits are kept in this browser.
      </p>
    </div>
  );
}

interface HeadsProps {
  readonly limits: Limits;
  readonly onLimit: (id: LimitId, value: number) => void;
  readonly hello: number;
  readonly onHello: (hello: number) => void;
}

/** What is counted, and how much of it is too much. */
function Heads({ limits, onLimit, hello, onHello }: HeadsProps) {
  return (
    <thead>
      <tr>
        <th scope="col">mode</th>
        <th scope="col" className="number">
          trees
        </th>
        {LIMITS.map((l) => (
          <th key={l.id} scope="col" className="number">
            {l.words}
          </th>
        ))}
      </tr>
      <tr>
        <th scope="row">
          limit{' '}
          <small className="quiet">
            hello{' '}
            <input
              type="number"
              className="mono small-number"
              min={1}
              max={10}
              value={hello}
              aria-label="Hello time in seconds"
              onChange={(e) => onHello(Math.min(10, Math.max(1, Number(e.target.value) || 2)))}
            />{' '}
            s
          </small>
        </th>
        <td />
        {LIMITS.map((l) => (
          <td key={l.id} className="number">
            <input
              type="number"
              className="mono small-number"
              min={1}
              value={limits[l.id]}
              aria-label={`Limit of ${l.words}`}
              onChange={(e) => onLimit(l.id, Number(e.target.value))}
            />
          </td>
        ))}
      </tr>
    </thead>
  );
}

function LoadCell({ value, limit, where }: { value: number; limit: number; where: string }) {
  return (
    <td className={`number ${value > limit ? 'alarm' : ''}`}>
      <span className="mono">{Math.round(value * 10) / 10}</span>
      {value > limit && <b> over</b>} <small className="quiet">{where}</small>
    </td>
  );
}

interface ModeRowProps {
  readonly mode: Mode;
  readonly load: ProtocolLoad;
  readonly note: string;
  readonly limits: Limits;
}

function ModeRow({ mode, load, note, limits }: ModeRowProps) {
  const solved = useSession((s) => s.solved);
  const { design } = solved.topology;
  const name = (id: string) => switchById(design, id)?.name ?? '';
  return (
    <tr className={mode === design.mode ? 'in-view' : undefined}>
      <th scope="row">
        {MODE_WORDS[mode]}
        <small className="quiet">
          {note}
          {mode === design.mode && ', in use'}
        </small>
      </th>
      <td className="number mono">{load.trees}</td>
      <LoadCell value={load.trees1.count} limit={limits.trees} where={name(load.trees1.switch)} />
      <LoadCell value={load.ports1.count} limit={limits.ports} where={name(load.ports1.switch)} />
      <LoadCell value={load.bpdus1.rate} limit={limits.bpdus} where={name(load.bpdus1.switch)} />
      <LoadCell value={load.link1.rate} limit={limits.link} where={endWords(solved, load.link1.port)} />
    </tr>
  );
}
