'use client';
import { COMMON_TREE } from '../../../core/standard';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { useMemo, useState } from 'react';
import { modeOf, setField } from '../../../core/design';
import { compareConfigs, differenceSentences, mstConfigOf, mstSwitches, regionOf } from '../../../core/network';
import { boundaryPorts } from '../../../core/trees';
import { endWords } from '../../../core/goals';
import { useBench, useSession } from '../../session/context';
import { Term } from '../../controls/Term';

/** Which switch is in which region, why two are not in the same, and where regions meet. */
export function RegionMembers() {
  const { edit, select, setView } = useBench();
  const solved = useSession((s) => s.solved);
  const { design } = solved.topology;
  const members = useMemo(() => mstSwitches(design), [design]);
  const [pair, setPair] = useState<[string, string] | null>(null);
  const odd = useMemo(() => {
    const keys = members.map((s) => mstConfigOf(design, s).key);
    const votes = new Map<string, number>();
    for (const key of keys) votes.set(key, (votes.get(key) ?? 0) + 1);
    const main = [...votes].sort((a, b) => b[1] - a[1])[0]?.[0];
    return { main: members[keys.indexOf(main ?? '')], other: members[keys.findIndex((k) => k !== main)] };
  }, [design, members]);
  const cist = solved.trees.find((t) => t.outcome.cist);
  const boundaries = useMemo(() => {
    if (!cist?.outcome.cist) return [];
    const kinds = boundaryPorts(solved.topology, cist.outcome.cist, cist.problem);
    return [...kinds.keys()].filter((p) => kinds[p]! > 0).map((p) => ({ port: p, strict: kinds[p] === 1 }));
  }, [solved, cist]);
  if (members.length === 0) return <p className="quiet">No switch runs MSTP.</p>;
  const [a, b] = pair ?? [odd.main?.id ?? members[0]!.id, odd.other?.id ?? members[1]?.id ?? members[0]!.id];
  const [left, right] = [
    members.find((s) => s.id === a) ?? members[0]!,
    members.find((s) => s.id === b) ?? members[0]!,
  ];
  const [ca, cb] = [mstConfigOf(design, left), mstConfigOf(design, right)];
  const difference = compareConfigs(ca, cb);
  const same = !difference.name && !difference.revision && !difference.digest;
  const picker = (side: 0 | 1, value: string) => (
    <Select
      value={value}
      onChange={(e) => setPair(side === 0 ? [e.target.value, right.id] : [left.id, e.target.value])}
      inputProps={{ 'aria-label': side === 0 ? 'First switch to compare' : 'Second switch to compare' }}
    >
      {members.map((s) => (
        <MenuItem key={s.id} value={s.id}>
          {s.name}
        </MenuItem>
      ))}
    </Select>
  );
  return (
    <div className="members">
      <section aria-label="Comparison of two switches">
        <h3>Are they one region?</h3>
        <table className="compare">
          <thead>
            <tr>
              <td />
              <th scope="col">{picker(0, left.id)}</th>
              <th scope="col">{picker(1, right.id)}</th>
            </tr>
          </thead>
          <tbody>
            <tr className={difference.name ? 'alarm' : undefined}>
              <th scope="row">name</th>
              <td className="mono">{JSON.stringify(ca.name)}</td>
              <td className="mono">{JSON.stringify(cb.name)}</td>
            </tr>
            <tr className={difference.revision ? 'alarm' : undefined}>
              <th scope="row">revision</th>
              <td className="mono">{ca.revision}</td>
              <td className="mono">{cb.revision}</td>
            </tr>
            <tr className={difference.digest ? 'alarm' : undefined}>
              <th scope="row">digest</th>
              <td className="mono wrap">{ca.digest}</td>
              <td className="mono wrap">{cb.digest}</td>
            </tr>
            {difference.vlans.map((d) => (
              <tr key={d.vlans} className="alarm">
                <th scope="row">VLAN {d.vlans}</th>
                <td>{d.a === 0 ? 'CIST' : `instance ${d.a}`}</td>
                <td>{d.b === 0 ? 'CIST' : `instance ${d.b}`}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <ul className="sentences">
          {(left === right
            ? ['Choose two different switches.']
            : differenceSentences(left.name, ca, right.name, cb)
          ).map((sentence) => (
            <li key={sentence} className={same || left === right ? 'quiet' : undefined}>
              {sentence}
            </li>
          ))}
        </ul>
        {boundaries.length > 0 && (
          <>
            <h3>
              <Term id="boundaryPort">Boundary ports</Term>
            </h3>
            <p className="sentences">
              {boundaries.map(({ port, strict }) => (
                <button
                  key={port}
                  className="plain move"
                  title={
                    strict
                      ? 'The link belongs to the neighbour: instances follow the CIST here'
                      : 'The link belongs to this region'
                  }
                  onClick={() => {
                    select({ kind: 'port', id: solved.topology.ports[port]!.element.id });
                    setView({ board: 'chart', tree: COMMON_TREE });
                  }}
                >
                  {endWords(solved, port)}
                </button>
              ))}
            </p>
          </>
        )}
      </section>
      <table className="rows">
        <caption>Region of each switch</caption>
        <thead>
          <tr>
            <th scope="col">switch</th>
            <th scope="col">region</th>
            <th scope="col">digest</th>
            <th scope="col">against {odd.main?.name}</th>
          </tr>
        </thead>
        <tbody>
          {design.switches.map((s) => {
            const mst = modeOf(design, s) === 'mstp';
            const config = mst ? mstConfigOf(design, s) : null;
            const main = odd.main ? mstConfigOf(design, odd.main) : null;
            const differs = config && main ? compareConfigs(main, config) : null;
            const words = differs
              ? [
                  differs.name && 'name',
                  differs.revision && 'revision',
                  ...differs.vlans.map((d) => `VLAN ${d.vlans}`),
                ].filter(Boolean)
              : [];
            return (
              <tr key={s.id}>
                <th scope="row">
                  <button className="plain" onClick={() => select({ kind: 'switch', id: s.id })}>
                    {s.name}
                  </button>
                </th>
                <td>
                  {mst && design.regions.length > 0 ? (
                    <Select
                      value={regionOf(design, s)?.id ?? ''}
                      onChange={(e) =>
                        edit(`Region of ${s.name}`, [setField('switch', s.id, 'region', e.target.value)])
                      }
                      inputProps={{ 'aria-label': `Region of ${s.name}` }}
                    >
                      {design.regions.map((r) => (
                        <MenuItem key={r.id} value={r.id}>
                          {r.name || '(no name)'}
                        </MenuItem>
                      ))}
                    </Select>
                  ) : (
                    <span className="quiet">{mst ? 'its own' : 'no MSTP'}</span>
                  )}
                </td>
                <td className="mono">{config ? `${config.digest.slice(0, 8)}…` : ''}</td>
                <td className={words.length > 0 ? 'alarm' : 'quiet'}>
                  {config &&
                    (words.length > 0 ? (
                      <button className="plain" onClick={() => odd.main && setPair([odd.main.id, s.id])}>
                        {words.slice(0, 3).join(', ')}
                        {words.length > 3 && ' …'}
                      </button>
                    ) : (
                      'same'
                    ))}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
