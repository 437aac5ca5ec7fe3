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

function storedLimits(): Record<LimitId, number> {
  const usual = Object.fromEntries(LIMITS.map((l) => [l.id, l.otherwise])) as Record<LimitId, number>;
  const own = readStored('local', STORE, (text) => limitsSchema.parse(JSON.parse(text)));
  return { ...usual, ...own };
}

/** What each mode asks of the switches, against limits that can be set. */
export function Worksheet() {
  const solved = useSession((s) => s.solved);
  const { design } = solved.topology;
  const [limits, setLimits] = useState(storedLimits);
  const [hello, setHello] = useState(2);
  const rows = useMemo(
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
  const set = (id: LimitId, value: number) => {
    const next = { ...limits, [id]: Math.max(1, Math.round(value) || 1) };
    setLimits(next);
    writeStored('local', STORE, JSON.stringify(next));
  };
  const cell = (value: number, limit: number, where: string) => (
    <td className={`number ${value > limit ? 'alarm' : ''}`}>
      <span className="mono">{Math.round(value * 10) / 10}</span>
      {value > limit && <b> over</b>} <small className="quiet">{where}</small>
    </td>
  );
  const name = (id: string) => switchById(design, id)?.name ?? '';
  return (
    <div className="worksheet">
      <table className="rows">
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
                  onChange={(e) => setHello(Math.min(10, Math.max(1, Number(e.target.value) || 2)))}
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
                  onChange={(e) => set(l.id, Number(e.target.value))}
                />
              </td>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ load, note }, i) => (
            <tr key={MODES[i]} className={MODES[i] === design.mode ? 'in-view' : undefined}>
              <th scope="row">
                {MODE_WORDS[MODES[i]!]}
                <small className="quiet">
                  {note}
                  {MODES[i] === design.mode && ', in use'}
                </small>
              </th>
              <td className="number mono">{load.trees}</td>
              {cell(load.trees1.count, limits.trees, name(load.trees1.switch))}
              {cell(load.ports1.count, limits.ports, name(load.ports1.switch))}
              {cell(load.bpdus1.rate, limits.bpdus, name(load.bpdus1.switch))}
              {cell(load.link1.rate, limits.link, endWords(solved, load.link1.port))}
            </tr>
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
