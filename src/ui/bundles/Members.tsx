'use client';
import type { MemberVerdict } from '../../core/network';
import {
  farEnd,
  freePorts,
  hostById,
  linkAt,
  linkSpeed,
  portById,
  portLabel,
  replugMember,
  setField,
  switchById,
} from '../../core/design';
import type { Bundle, Port } from '../../core/design';
import { speedLabel } from '../chart/ends';
import { Field } from '../controls/Field';
import { useBench, useSession } from '../session/context';
import { Exchange } from './Exchange';
import { useBundleEdits } from './useBundleEdits';
import type { BundleGroup } from './groups';
import { Term } from '../controls/Term';
import styles from './Members.module.css';

interface Props {
  group: BundleGroup;
  onRemove: (port: string) => void;
}

/** What a member port has set for itself that its bundle has otherwise: the bundle's counts. */
function unlike(near: readonly Bundle[], port: Port | undefined): string[] {
  const bundle = port && near.find((b) => b.members.includes(port.id));
  if (!bundle) return [];
  const vlans = (v: string | undefined) => (v === undefined || v === 'all' ? 'all VLANs' : `VLANs ${v}`);
  return [
    ...(vlans(port.vlans) === vlans(bundle.vlans)
      ? []
      : [`The port has ${vlans(port.vlans)}, the bundle ${vlans(bundle.vlans)}: those of the bundle apply.`]),
    ...(port.native === bundle.native
      ? []
      : [`The port has native VLAN ${port.native ?? 'none'}, the bundle ${bundle.native ?? 'none'}.`]),
    ...(port.cost === undefined ? [] : [`Cost ${port.cost} of the port does not apply: the bundle has a cost.`]),
  ];
}

/** The members between the two ends: what each end makes of it, and why. */
export function Members({ group, onRemove }: Props) {
  const { near, far, verdict } = group;
  return (
    <>
      <table className={`rows ${styles.bundleMembers}`}>
        <caption>
          <Term id="active">Members</Term>
        </caption>
        <thead>
          <tr>
            <th scope="col">port</th>
            <th scope="col">priority</th>
            <th scope="col">here</th>
            <th scope="col">cable</th>
            <th scope="col">there</th>
            <th scope="col">priority</th>
            <th scope="col">port</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {verdict.members.map((m) => (
            <MemberRow key={m.port} group={group} member={m} onRemove={onRemove} />
          ))}
          {verdict.members.length === 0 && (
            <tr>
              <td className="quiet" colSpan={8}>
                No member: add a cable, or split the bundle.
              </td>
            </tr>
          )}
        </tbody>
      </table>
      {far[0] && near[0]!.kind === 'lacp' && far[0].kind === 'lacp' && (
        <Exchange near={near[0]!} far={far[0]} verdict={verdict} />
      )}
    </>
  );
}

function Priority({ port }: { port: Port }) {
  const { edit } = useBench();
  const label = useSession((s) => portLabel(s.design, port.id));
  return (
    <Field
      key={port.id}
      label={`port priority of ${label}`}
      width={76}
      value={String(port.lacpPriority ?? 32768)}
      onSet={(text) => {
        const value = Number.isFinite(Number(text)) ? Number(text) : text;
        return edit(`LACP priority of ${label}: ${text}`, [
          setField('port', port.id, 'lacpPriority', value === 32768 ? null : value),
        ]);
      }}
    />
  );
}

/** The cable of a member is put to another port of the switch, which takes its place. */
function OtherPort({ port }: { port: Port }) {
  const design = useSession((s) => s.design);
  const run = useBundleEdits();
  const free = freePorts(design, port.switch);
  if (free.length === 0 || !linkAt(design, port.id)) return null;
  const label = portLabel(design, port.id);
  return (
    <select
      className={styles.otherPort}
      aria-label={`Put the cable of ${label} to another port`}
      value=""
      onChange={({ target: { value } }) =>
        run(`Cable of ${label} to ${portLabel(design, value)}`, replugMember(design, port.id, value))
      }
    >
      <option value="">to another port…</option>
      {free.map((p) => (
        <option key={p.id} value={p.id}>
          {p.name}
        </option>
      ))}
    </select>
  );
}

const MemberState = ({ of: m }: { of: MemberVerdict | undefined }) => (
  <span className={m && (m.miscabled || m.state === 'suspended') ? 'alarm' : undefined}>
    {m ? `${m.miscabled ? 'miscabled, ' : ''}${m.state}` : '–'}
  </span>
);

/** One cable of the bundle, with what each end makes of it. */
function MemberRow({ group, member: m, onRemove }: Props & { member: MemberVerdict }) {
  const { near, farVerdict } = group;
  const design = useSession((s) => s.design);
  const port = portById(design, m.port);
  const link = linkAt(design, m.port);
  const end = link && farEnd(link, m.port);
  const farPort = end && 'port' in end ? portById(design, end.port) : undefined;
  const there = farPort && farVerdict?.members.find((o) => o.port === farPort.id);
  const name = farPort
    ? `${switchById(design, farPort.switch)?.name} ${farPort.name}`
    : end && 'host' in end
      ? hostById(design, end.host)?.name
      : 'nothing';
  return (
    <tr>
      <th scope="row">
        {near.length > 1 && port ? portLabel(design, port.id) : port?.name}
        {port && <OtherPort port={port} />}
      </th>
      <td className="bare-label">{port && <Priority port={port} />}</td>
      <td>
        <MemberState of={m} />
        <div className="quiet small">{m.sentence}</div>
        {unlike(near, port).map((sentence) => (
          <div key={sentence} className="alarm small">
            {sentence}
          </div>
        ))}
      </td>
      <td className={`bundle-cable is-${m.state}`}>{link ? speedLabel(linkSpeed(design, link)) : ''}</td>
      <td>
        <MemberState of={there} />
      </td>
      <td className="bare-label">{there && <Priority port={farPort} />}</td>
      <td>{name}</td>
      <td>
        <button
          className="plain quiet remove"
          aria-label={`Take port ${port?.name} of ${near[0]!.name} out`}
          onClick={() => onRemove(m.port)}
        >
          ×
        </button>
      </td>
    </tr>
  );
}
