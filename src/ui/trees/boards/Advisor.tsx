'use client';
import Button from '@mui/material/Button';
import { useDeferredValue, useMemo, useState } from 'react';
import { switchById } from '../../../core/design';
import { count, formatVlanRanges } from '../../../core/standard';
import { advices } from '../../../core/analysis';
import type { Advice } from '../../../core/analysis';
import { useBench, useSession } from '../../session/context';

const key = (a: Advice) => `${a.kind} ${a.instances.length}`;

/** Groupings of VLANs into instances, each with what it keeps, what it moves and what it costs. */
export function Advisor() {
  const solved = useSession((s) => s.solved);
  const [most, setMost] = useState(16);
  const asked = useDeferredValue(most);
  const found = useMemo(() => advices(solved, asked), [solved, asked]);
  if (found.length === 0) return <p className="quiet">The design needs VLANs and switches first.</p>;
  return (
    <div className="advisor">
      <p className="quiet">
        At most{' '}
        <input
          type="number"
          min={1}
          max={64}
          value={most}
          aria-label="Instances at most"
          className="mono small-number"
          onChange={(e) => setMost(Math.min(64, Math.max(1, Number(e.target.value) || 1)))}
        />{' '}
        instances. Each is solved with the grouping in force before it is shown.
      </p>
      <table className="rows">
        <thead>
          <tr>
            <th scope="col">grouping</th>
            <th scope="col">VLAN paths</th>
            <th scope="col" className="number">
              trees
            </th>
            <th scope="col" className="number">
              settings
            </th>
            <td />
          </tr>
        </thead>
        <tbody>
          {found.map((a) => (
            <AdviceRow key={key(a)} advice={a} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function AdviceRow({ advice: a }: { advice: Advice }) {
  const { tryOut } = useBench();
  const design = useSession((s) => s.design);
  return (
    <tr>
      <th scope="row">
        <b>
          {count(a.instances.length, 'instance')}
          {a.kind === 'balance' && ', balanced over two roots'}
        </b>
        {a.instances.map((i) => (
          <div key={i.instance} className="small">
            <span className="mono">{i.instance}</span>: VLANs{' '}
            <span className="mono">{formatVlanRanges(i.vlans).replaceAll(',', ', ')}</span>, root{' '}
            {i.root ? switchById(design, i.root)?.name : 'none'}
            {i.load > 0 && `, ${Math.round(i.load)} Mb/s`}
          </div>
        ))}
      </th>
      <td>
        {a.changed.length === 0 ? (
          'all stay'
        ) : (
          <>
            move for VLAN{a.changed.length > 1 ? 's' : ''}{' '}
            <span className="mono">{formatVlanRanges(a.changed.map((c) => c.vlan)).replaceAll(',', ', ')}</span>
          </>
        )}
        {a.parted.length > 0 && (
          <div className="alarm">
            VLAN {formatVlanRanges(a.parted)} is partitioned: its instance forwards over a link that does not carry it
          </div>
        )}
      </td>
      <td className="number mono">
        {a.treesBefore} → {a.treesAfter}
      </td>
      <td className="number mono">{a.settings}</td>
      <td>
        <Button onClick={() => tryOut(`Group VLANs into ${count(a.instances.length, 'instance')}`, a.edits)}>
          Preview
        </Button>
      </td>
    </tr>
  );
}
