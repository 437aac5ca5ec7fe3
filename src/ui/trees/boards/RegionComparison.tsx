'use client';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import type { Design, Switch } from '../../../core/design';
import { compareConfigs, differenceSentences, mstConfigOf } from '../../../core/network';

interface Props {
  readonly design: Design;
  readonly members: readonly Switch[];
  readonly left: Switch;
  readonly right: Switch;
  readonly onPair: (pair: readonly [string, string]) => void;
}

const instanceOf = (instance: number): string => (instance === 0 ? 'CIST' : `instance ${instance}`);

/** Whether two switches are one region: their configurations side by side, and what differs. */
export function RegionComparison({ design, members, left, right, onPair }: Props) {
  const [a, b] = [mstConfigOf(design, left), mstConfigOf(design, right)];
  const difference = compareConfigs(a, b);
  const same = !difference.name && !difference.revision && !difference.digest;
  const sentences =
    left === right ? ['Choose two different switches.'] : differenceSentences(left.name, a, right.name, b);
  const row = (name: string, differs: boolean, cells: readonly [string, string], style: string) => (
    <tr key={name} className={differs ? 'alarm' : undefined}>
      <th scope="row">{name}</th>
      <td className={style}>{cells[0]}</td>
      <td className={style}>{cells[1]}</td>
    </tr>
  );
  return (
    <>
      <h3>Are they one region?</h3>
      <table className="compare">
        <thead>
          <tr>
            <td />
            <th scope="col">
              <MemberChoice
                label="First switch to compare"
                {...{ members }}
                value={left}
                onPick={(id) => onPair([id, right.id])}
              />
            </th>
            <th scope="col">
              <MemberChoice
                label="Second switch to compare"
                {...{ members }}
                value={right}
                onPick={(id) => onPair([left.id, id])}
              />
            </th>
          </tr>
        </thead>
        <tbody>
          {row('name', difference.name, [JSON.stringify(a.name), JSON.stringify(b.name)], 'mono')}
          {row('revision', difference.revision, [String(a.revision), String(b.revision)], 'mono')}
          {row('digest', difference.digest, [a.digest, b.digest], 'mono wrap')}
          {difference.vlans.map((d) => row(`VLAN ${d.vlans}`, true, [instanceOf(d.a), instanceOf(d.b)], ''))}
        </tbody>
      </table>
      <ul className="sentences">
        {sentences.map((sentence) => (
          <li key={sentence} className={same || left === right ? 'quiet' : undefined}>
            {sentence}
          </li>
        ))}
      </ul>
    </>
  );
}

interface ChoiceProps {
  readonly label: string;
  readonly members: readonly Switch[];
  readonly value: Switch;
  readonly onPick: (id: string) => void;
}

function MemberChoice({ label, members, value, onPick }: ChoiceProps) {
  return (
    <Select value={value.id} onChange={(e) => onPick(e.target.value)} inputProps={{ 'aria-label': label }}>
      {members.map((s) => (
        <MenuItem key={s.id} value={s.id}>
          {s.name}
        </MenuItem>
      ))}
    </Select>
  );
}
