'use client';
import { hostById, switchById } from '../../../core/design';
import { pathCapacity, pathFaultSentence } from '../../../core/analysis';

import type { Hop, Path } from '../../../core/analysis';
import { useBench, useSession, useTree } from '../../session/context';
import type { PlaceRef, ShownPath } from '../usePath';
import { PlacePicker } from './PlacePicker';
import { grouped } from '../../../core/standard';

/** The way of frames between two places, hop by hop. */
export function PathPanel({ shown }: { shown: ShownPath }) {
  const solved = useSession((s) => s.solved);
  const of = useTree()!;
  const { design } = solved.topology;
  const [from, to] = shown.places;
  const nameOf = (ref: PlaceRef) =>
    ref.kind === 'host' ? hostById(design, ref.id)?.name : switchById(design, ref.id)?.name;
  const { answer } = shown;
  return (
    <>
      <h2>
        {nameOf(from)} to {nameOf(to)}
      </h2>
      <p className="quiet">
        Path of frames in {of.tree.vlan === null ? 'the common tree' : `VLAN ${of.tree.vlan} ${of.tree.name}`}
      </p>
      <PlacePicker key={`${from.id} ${to.id}`} from={from} to={to} />
      {answer && !answer.ok && (
        <section className="why" tabIndex={-1}>
          <p className="sentence">{pathFaultSentence(solved, answer.fault)}</p>
        </section>
      )}
      {answer?.ok && <Found path={answer.path} />}
    </>
  );
}

function Found({ path }: { path: Path }) {
  const solved = useSession((s) => s.solved);
  const capacity = pathCapacity(solved, path);
  return (
    <>
      <dl className="facts">
        <div>
          <dt>cost</dt>
          <dd className="mono">{grouped(path.cost)}</dd>
        </div>
        <div>
          <dt>switches on the way</dt>
          <dd className="mono">{path.hops.length}</dd>
        </div>
        {Number.isFinite(capacity.rate) && (
          <>
            <div>
              <dt>capacity</dt>
              <dd className="mono">{grouped(capacity.rate)} Mb/s</dd>
            </div>
            <div>
              <dt>with one member down</dt>
              <dd className="mono">{grouped(capacity.memberLost)} Mb/s</dd>
            </div>
          </>
        )}
      </dl>
      {path.lostAt && <p className="alarm">{pathFaultSentence(solved, path.lostAt)}</p>}
      <Hops hops={path.hops} />
    </>
  );
}

function Hops({ hops }: { hops: readonly Hop[] }) {
  const { select } = useBench();
  const { design, ports } = useSession((s) => s.solved.topology);
  const portName = (port: number | null) => (port === null ? '' : ports[port]!.element.name);
  return (
    <table className="rows">
      <caption>Hop by hop</caption>
      <thead>
        <tr>
          <th scope="col">in</th>
          <th scope="col">switch</th>
          <th scope="col">out</th>
          <th scope="col" className="number">
            cost
          </th>
        </tr>
      </thead>
      <tbody>
        {hops.map((hop) => (
          <tr key={hop.bridge}>
            <td className="mono">{portName(hop.inPort)}</td>
            <th scope="row">
              <button className="plain" onClick={() => select({ kind: 'switch', id: design.switches[hop.bridge]!.id })}>
                {design.switches[hop.bridge]!.name}
              </button>
            </th>
            <td className="mono">{portName(hop.outPort)}</td>
            <td className="number mono">{hop.cost === 0 ? '' : grouped(hop.cost)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
