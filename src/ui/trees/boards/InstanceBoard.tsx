'use client';
import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import type { Edit } from '../../../core/design';
import { mstSwitches } from '../../../core/network';
import { useBench, useSession } from '../../session/context';
import { Advisor } from './Advisor';
import { RegionMap } from './RegionMap';
import { RegionMembers } from './RegionMembers';
import { Worksheet } from './Worksheet';
import { OneOf } from '../../controls/OneOf';

const PARTS = [
  { id: 'members', name: 'Switches and regions' },
  { id: 'advisor', name: 'Advisor' },
  { id: 'load', name: 'Protocol load' },
] as const;

/** VLANs grouped into instances: the map of a region, who is in it, a proposal, and what it spares. */
export function InstanceBoard() {
  const { tryOut } = useBench();
  const design = useSession((s) => s.design);
  const mst = useMemo(() => mstSwitches(design), [design]);
  const [asked, setPart] = useState<(typeof PARTS)[number]['id'] | null>(null);
  const part = asked ?? (mst.length > 0 ? 'members' : 'advisor');
  const start = () => {
    const edits: Edit[] = [{ type: 'settings', field: 'mode', value: 'mstp' }];
    if (design.regions.length === 0)
      edits.push({
        type: 'add',
        kind: 'region',
        value: { id: 'region-1', name: 'region-1', revision: 0, map: {} },
      });
    tryOut('Run MSTP on every switch', edits);
  };
  return (
    <div className="board instances">
      {mst.length > 0 ? (
        <RegionMap />
      ) : (
        <p className="board-lead">
          No switch runs MSTP. With MST instances, VLANs that take the same paths share one tree.{' '}
          <Button onClick={start}>Run MSTP on every switch</Button>
        </p>
      )}
      <OneOf className="lower-tabs" label="Below the map" options={PARTS} value={part} onPick={setPart} />
      <div className="board-scroll lower">
        {part === 'members' && <RegionMembers />}
        {part === 'advisor' && <Advisor />}
        {part === 'load' && <Worksheet />}
      </div>
    </div>
  );
}
