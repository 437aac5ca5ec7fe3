'use client';
import { hostById, segmentById, switchById } from '../../../core/design';
import { roleAt, stepCost } from '../../../core/trees';
import { useBench, useSession, useTree } from '../../session/context';
import { PlacePicker } from './PlacePicker';
import { RoleMark, roleWords } from '../../controls/RoleMark';
import { count, grouped } from '../../../core/standard';

/** A host: where it is plugged in, and a path from it. */
export function HostPanel({ id }: { id: string }) {
  const { select } = useBench();
  const solved = useSession((s) => s.solved);
  const { design, portIndex, ports } = solved.topology;
  const host = hostById(design, id)!;
  const at = design.links.flatMap((l) => {
    const [own, far] =
      'host' in l.a && l.a.host === id ? [l.a, l.b] : 'host' in l.b && l.b.host === id ? [l.b, l.a] : [null, null];
    return own && far && 'port' in far ? [ports[portIndex.get(far.port)!]!.element] : [];
  });
  return (
    <>
      <h2>{host.name}</h2>
      <p className="quiet">host{host.vlan === undefined ? '' : ` in VLAN ${host.vlan}`}</p>
      <table className="rows">
        <caption>Plugged into</caption>
        <tbody>
          {at.map((port) => (
            <tr key={port.id}>
              <th scope="row">
                <button className="plain" onClick={() => select({ kind: 'port', id: port.id })}>
                  {switchById(design, port.switch)?.name} {port.name}
                </button>
              </th>
            </tr>
          ))}
        </tbody>
      </table>
      <PlacePicker from={{ kind: 'host', id }} />
    </>
  );
}

/** A shared segment: every port on it, with its role. */
export function SegmentPanel({ id }: { id: string }) {
  const { select } = useBench();
  const solved = useSession((s) => s.solved);
  const of = useTree()!;
  const { design, portIndex, ports } = solved.topology;
  const segment = segmentById(design, id)!;
  return (
    <>
      <h2>{segment.name}</h2>
      <p className="quiet">shared segment of {count(segment.ports.length, 'port')}</p>
      <table className="rows">
        <caption>Ports on it</caption>
        <tbody>
          {segment.ports.map((portId) => {
            const index = portIndex.get(portId)!;
            const { element } = ports[index]!;
            return (
              <tr key={portId}>
                <th scope="row">
                  <button className="plain" onClick={() => select({ kind: 'port', id: portId })}>
                    {switchById(design, element.switch)?.name} {element.name}
                  </button>
                </th>
                <td>
                  <RoleMark role={roleAt(of, index)} /> {roleWords(roleAt(of, index))}
                </td>
                <td className="number mono">{grouped(stepCost(of, index))}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
}
