'use client';
import { useMemo } from 'react';
import { groupBy, switchById } from '../../core/design';
import type { Design } from '../../core/design';
import { memberChanges, treeCapacity } from '../../core/analysis';
import type { MemberChange } from '../../core/analysis';
import { roleAt } from '../../core/trees';
import type { MovedTree, Role } from '../../core/trees';
import { useSession } from '../session/context';
import { RoleMark, roleWords } from '../controls/RoleMark';
import type { BundleGroup } from './groups';
import { grouped } from '../../core/standard';
import styles from './Effects.module.css';

const WORDS = { lost: 'one member down', added: 'one member added' } as const;
const rate = (n: number) => (Number.isFinite(n) ? `${grouped(n)} Mb/s` : 'no link between switches');

/** `signal-tower 2: alternate → root` */
function movedWords(design: Design, { ports, cutOff }: MovedTree): string {
  const words = ports.map((p) => `${p.name}: ${p.before} → ${p.after}`);
  const names = cutOff.map((id) => switchById(design, id)?.name);
  if (names.length > 0) words.unshift(`${names.join(', ')} cut off`);
  return words.length > 0 ? words.join('; ') : 'costs only';
}

function Change({ change, at }: { change: MemberChange; at: string }) {
  const design = useSession((s) => s.design);
  const cost = (n: number | null) => (n === null ? 'no port' : grouped(n));
  return (
    <section aria-label={`With ${WORDS[change.kind]}`}>
      <h3>With {WORDS[change.kind]}</h3>
      <p>
        Cost by speed at {at}: <span className="mono">{cost(change.before)}</span> before,{' '}
        <span className="mono">{cost(change.after)}</span> after.{' '}
        {change.fixed !== null && `Cost ${grouped(change.fixed)} is set by hand and does not change.`}
        {!change.forms && <b className="alarm"> The bundle goes down.</b>}
      </p>
      {change.trees.length === 0 ? (
        <p className="quiet">No tree changes.</p>
      ) : (
        <ul>
          {[...groupBy(change.trees, (t) => movedWords(design, t))].map(([words, trees]) => (
            <li key={words}>
              <b>{trees.map((t) => t.tree.replace('-', ' ')).join(', ')}</b>: {words}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

const RoleAt = ({ role }: { role: Role }) => (
  <>
    <RoleMark role={role} /> {roleWords(role)}
  </>
);

/** What the bundle is to each tree, how much the trees can carry, and what the loss of a member would change. */
export function Effects({ group }: { group: BundleGroup }) {
  const solved = useSession((s) => s.solved);
  const { design, portIndex } = solved.topology;
  const near = group.near[0]!;
  const far = group.far[0];
  const changes = useMemo(() => memberChanges(solved, near.id), [solved, near.id]);
  const at = switchById(design, near.switch)!.name;
  const port = portIndex.get(near.id);
  const farPort = far && portIndex.get(far.id);
  const formed = port !== undefined && solved.topology.ports[port]!.kind === 'bundle';
  const rows = useMemo(() => solved.trees.map((of) => ({ of, capacity: treeCapacity(solved, of) })), [solved]);
  const place = (p: number) => {
    if (p < 0) return '';
    const { element } = solved.topology.ports[p]!;
    return `${switchById(design, element.switch)?.name} ${element.name}`;
  };
  return (
    <section className={styles.bundleEffects} aria-label="Trees and capacity">
      {changes.map((c) => (
        <Change key={c.kind} change={c} at={at} />
      ))}
      <table className="rows">
        <caption>Tree by tree</caption>
        <thead>
          <tr>
            <th scope="col">tree</th>
            <th scope="col">{at}</th>
            <th scope="col">{far ? switchById(design, far.switch)?.name : 'far end'}</th>
            <th scope="col">narrowest link of the tree</th>
            <th scope="col">with one member of each bundle lost</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ of, capacity }) => (
            <tr key={of.tree.id}>
              <th scope="row">
                {of.tree.vlan === null ? of.tree.name : `VLAN ${of.tree.vlan}`}{' '}
                <small className="quiet">{of.tree.vlan === null ? '' : of.tree.name}</small>
              </th>
              <td>{formed ? <RoleAt role={roleAt(of, port)} /> : '–'}</td>
              <td>{formed && farPort !== undefined ? <RoleAt role={roleAt(of, farPort)} /> : '–'}</td>
              <td className="mono">
                {rate(capacity.rate)} <small className="quiet">{place(capacity.port)}</small>
              </td>
              <td className="mono">
                {rate(capacity.memberLost)} <small className="quiet">{place(capacity.memberLostPort)}</small>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
