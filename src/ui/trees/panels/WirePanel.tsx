'use client';
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import type { ReactNode } from 'react';
import { bundleAt, bundleById, hostById, switchById } from '../../../core/design';
import { verdictOf } from '../../../core/network';
import type { Bundle, Port, TreeKey } from '../../../core/design';
import { grouped, rateWords } from '../../../core/standard';
import { explainPort, roleAt, settledState } from '../../../core/trees';
import type { SolvedDesign } from '../../../core/trees';
import { failAction } from '../../session/actions';
import { useBench, useSession, useTree } from '../../session/context';
import { farLabel, farOf, memberPorts, rateOf } from './ends';
import { BundleState } from './BundleState';
import { EdgeSettings } from './EdgeSettings';
import { Ledger } from './Ledger';
import { PortCost, PortPriority, SpeedPicker } from './PortSettings';
import { Label } from '../../controls/Term';
import { RoleMark, roleWords } from '../../controls/RoleMark';
import { ScopePicker } from './ScopePicker';
import { WatchSettings } from './WatchSettings';

interface Props {
  /** Port or bundle looked at. */
  focus: string;
  link: string | null;
  /** The link as a whole: the ledger is that of its cut end. */
  whole?: boolean;
}

/** A port or a link: both ends side by side, their settings, and why the end looked at is as it is. */
export function WirePanel({ focus, link, whole = false }: Props) {
  const { edit } = useBench();
  const solved = useSession((s) => s.solved);
  const of = useTree()!;
  const { design, portIndex, ports } = solved.topology;
  const near = portIndex.get(focus);
  const far = near === undefined ? null : farOf(solved, near);
  const ends = near === undefined ? [] : [near, ...(far?.kind === 'port' ? [far.index] : [])];
  const isCut = (port: number) => ['alternate', 'backup', 'disputed'].includes(roleAt(of, port));
  const explained = (whole ? ends.find(isCut) : undefined) ?? near;
  const ledger = useMemo(
    () => (explained === undefined ? null : explainPort(solved, of, explained)),
    [solved, of, explained],
  );
  if (near === undefined) return <Absent focus={focus} />;
  const { element } = ports[near]!;
  const name = switchById(design, element.switch)?.name;
  const heading = whole
    ? `${name} ${element.name} – ${farLabel(solved, near)}`
    : `${name} · ${'members' in element ? 'bundle' : 'port'} ${element.name}`;
  const rest = [!whole && `to ${farLabel(solved, near)}`, rateWords(rateOf(solved, near))].filter(Boolean).join(' · ');
  const fail = failAction(design, [
    link ? { kind: 'link', id: link } : { kind: 'members' in element ? 'bundle' : 'port', id: element.id },
  ]);
  return (
    <>
      <h2>{heading}</h2>
      <p className="mono quiet">{rest}</p>
      <Membership focus={focus} element={element} />
      {explained !== undefined && ledger && (
        <>
          <Standing solved={solved} index={explained} />
          <Ledger ledger={ledger} />
        </>
      )}
      <section className="settings" aria-label="Settings">
        <ScopePicker />
        <Ends solved={solved} ends={ends} />
        {far?.kind === 'host' && (
          <p className="quiet">The far end is {hostById(design, far.id)?.name}, a host: it runs no spanning tree.</p>
        )}
        <div className="buttons">
          {fail.edits.length > 0 && (
            <Button onClick={() => edit(fail.label, fail.edits)}>{fail.restores ? 'Restore it' : 'Fail it'}</Button>
          )}
        </div>
      </section>
    </>
  );
}

/** What is no port of its own in the solution: a bundle that is down, or its member. */
function Absent({ focus }: { focus: string }) {
  const design = useSession((s) => s.design);
  const bundle = bundleById(design, focus);
  return (
    <>
      <h2>{bundle ? `Bundle ${bundle.name}` : 'Port'}</h2>
      <p className="quiet">{bundle ? 'This bundle is down.' : 'This port is not in the solution.'}</p>
      {bundle && <BundleState design={design} bundle={bundle} />}
    </>
  );
}

/** The bundle that a port is of, and what becomes of it. */
function Membership({ focus, element }: { focus: string; element: Port | Bundle }) {
  const design = useSession((s) => s.design);
  const member = bundleAt(design, focus) ?? bundleById(design, focus);
  if (!member) return null;
  return (
    <>
      {member.id !== element.id && (
        <p className="quiet">
          Member of bundle {member.name},{' '}
          {verdictOf(design, member.id)?.outcome === 'forms' ? 'which is up without it.' : 'which is down.'}
        </p>
      )}
      {member.id === element.id && member.id !== focus && (
        <p className="quiet">Member of bundle {member.name}: the bundle is the port that the tree sees.</p>
      )}
      <BundleState design={design} bundle={member} />
    </>
  );
}

/** Rows of settings, a column for each end. */
function Ends({ solved, ends }: { solved: SolvedDesign; ends: readonly number[] }) {
  const of = useTree()!;
  const { design, ports, defaultCost } = solved.topology;
  const elements = ends.map((index) => ports[index]!.element);
  const owner = (e: Port | Bundle) => switchById(design, e.switch)!;
  const row = (title: string, cell: (e: Port | Bundle, index: number) => ReactNode) => (
    <tr>
      <th scope="row">
        <Label text={title} />
      </th>
      {elements.map((e, i) => (
        <td key={e.id}>{cell(e, ends[i]!)}</td>
      ))}
    </tr>
  );
  return (
    <table className="ends">
      <thead>
        <tr>
          <td />
          {elements.map((e) => (
            <th key={e.id} scope="col">
              {owner(e).name} {e.name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {row('role', (_, index) => (
          <>
            <RoleMark role={roleAt(of, index)} /> {roleWords(roleAt(of, index))}
          </>
        ))}
        {row('speed', (e, index) => (
          <SpeedPicker element={e} rate={rateOf(solved, index)} />
        ))}
        {row('port cost', (e, index) => (
          <PortCost element={e} usual={defaultCost[index]!} />
        ))}
        {row('port priority', (e) => (
          <PortPriority element={e} />
        ))}
        {elements.some((e) => otherSettings(e, of.tree).length > 0) &&
          row('other trees', (e) => (
            <span className="mono small">{otherSettings(e, of.tree).slice(0, 6).join(', ') || '–'}</span>
          ))}
        {fixedRows(row)}
        {row('edge, guards', (e) => (
          <EdgeSettings element={e} />
        ))}
        {row('hello, one-way, storm', (e) => (
          <WatchSettings element={e} />
        ))}
        {elements.some((e) => 'members' in e) &&
          row('members', (_, index) => <span className="mono">{memberPorts(solved, index).join(', ')}</span>)}
      </tbody>
    </table>
  );
}

/** What a port is and carries, which is set in other places. */
const fixedRows = (row: (title: string, cell: (e: Port | Bundle) => ReactNode) => ReactNode) => (
  <>
    {row('port number', (e) => (
      <span className="mono">{e.number}</span>
    ))}
    {row('VLANs', (e) => (
      <span className="mono">{(e.vlans ?? 'all').replaceAll(',', ', ')}</span>
    ))}
    {row('native VLAN', (e) => (
      <span className="mono">{e.native ?? '–'}</span>
    ))}
  </>
);

/** Costs and priorities that are set for trees other than the one in view. */
function otherSettings(element: Port | Bundle, { vlan, instance }: TreeKey): string[] {
  const others = (table: Record<string, number> | undefined, own: number | null, name: string, unit: string) =>
    Object.entries(table ?? {})
      .filter(([key]) => Number(key) !== own)
      .map(([key, value]) => `${name}${key}: ${unit} ${grouped(value)}`);
  return [
    ...others(element.vlanCost, vlan, '', 'cost'),
    ...others(element.vlanPriority, vlan, '', 'prio'),
    ...others(element.instanceCost, instance, 'instance ', 'cost'),
    ...others(element.instancePriority, instance, 'instance ', 'prio'),
  ];
}

/** Role and state in this tree, and how many trees the port carries. */
function Standing({ solved, index }: { solved: SolvedDesign; index: number }) {
  const of = useTree()!;
  const role = roleAt(of, index);
  const carrying = solved.trees.filter((t) => settledState(roleAt(t, index)) === 'forwarding').length;
  const taking = solved.trees.filter((t) => roleAt(t, index) !== 'none').length;
  return (
    <dl className="facts">
      <div>
        <dt>role</dt>
        <dd>
          <RoleMark role={role} /> {role === 'none' ? 'not in tree' : role === 'disabled' ? 'down' : role}
        </dd>
      </div>
      <div>
        <dt>state</dt>
        <dd>{role === 'none' ? '–' : settledState(role)}</dd>
      </div>
      <div>
        <dt>over all trees</dt>
        <dd>
          carries {carrying} of {taking}
        </dd>
      </div>
    </dl>
  );
}
