'use client';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { modeOf, setField } from '../../../core/design';
import type { Design, Switch } from '../../../core/design';
import { compareConfigs, mstConfigOf, regionOf } from '../../../core/network';
import { useBench } from '../../session/context';

interface Props {
  readonly design: Design;
  /** A switch with the configuration that most have. */
  readonly main: Switch | undefined;
  readonly onCompare: (id: string) => void;
}

/** The region of each switch, and what keeps it apart from the majority. */
export function RegionTable({ design, main, onCompare }: Props) {
  return (
    <table className="rows">
      <caption>Region of each switch</caption>
      <thead>
        <tr>
          <th scope="col">switch</th>
          <th scope="col">region</th>
          <th scope="col">digest</th>
          <th scope="col">against {main?.name}</th>
        </tr>
      </thead>
      <tbody>
        {design.switches.map((s) => (
          <Row key={s.id} {...{ design, main, onCompare }} of={s} />
        ))}
      </tbody>
    </table>
  );
}

/** What differs between a switch and the majority, part by part. */
function differences(design: Design, main: Switch | undefined, s: Switch): string[] {
  if (!main) return [];
  const { name, revision, vlans } = compareConfigs(mstConfigOf(design, main), mstConfigOf(design, s));
  return [...(name ? ['name'] : []), ...(revision ? ['revision'] : []), ...vlans.map((d) => `VLAN ${d.vlans}`)];
}

const MOST_WORDS = 3;

function Row({ design, main, onCompare, of: s }: Props & { of: Switch }) {
  const { select } = useBench();
  const mst = modeOf(design, s) === 'mstp';
  const words = mst ? differences(design, main, s) : [];
  return (
    <tr>
      <th scope="row">
        <button className="plain" onClick={() => select({ kind: 'switch', id: s.id })}>
          {s.name}
        </button>
      </th>
      <td>
        {mst && design.regions.length > 0 ? (
          <RegionOf design={design} of={s} />
        ) : (
          <span className="quiet">{mst ? 'its own' : 'no MSTP'}</span>
        )}
      </td>
      <td className="mono">{mst ? `${mstConfigOf(design, s).digest.slice(0, 8)}…` : ''}</td>
      <td className={words.length > 0 ? 'alarm' : 'quiet'}>
        {words.length > 0 ? (
          <button className="plain" onClick={() => onCompare(s.id)}>
            {words.slice(0, MOST_WORDS).join(', ')}
            {words.length > MOST_WORDS && ' …'}
          </button>
        ) : (
          mst && 'same'
        )}
      </td>
    </tr>
  );
}

function RegionOf({ design, of: s }: { design: Design; of: Switch }) {
  const { edit } = useBench();
  return (
    <Select
      value={regionOf(design, s)?.id ?? ''}
      onChange={(e) => edit(`Region of ${s.name}`, [setField('switch', s.id, 'region', e.target.value)])}
      inputProps={{ 'aria-label': `Region of ${s.name}` }}
    >
      {design.regions.map((r) => (
        <MenuItem key={r.id} value={r.id}>
          {r.name || '(no name)'}
        </MenuItem>
      ))}
    </Select>
  );
}
