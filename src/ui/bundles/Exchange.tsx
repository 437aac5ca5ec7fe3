'use client';
import { useMemo } from 'react';
import { actingDesign, planned, sharedWith } from '../../core/network';
import type { BundleVerdict } from '../../core/network';
import { bundleById, farEnd, linkAt, portById, switchById } from '../../core/design';
import type { Bundle, Design } from '../../core/design';
import { stateWords } from '../../core/protocols/frames';
import type { LacpInfo } from '../../core/protocols/frames';
import { runToRest, startEnd } from '../../core/protocols/lacp';
import type { LacpPort } from '../../core/protocols/lacp';
import { systemIdWords } from '../../core/standard';
import { useSession } from '../session/context';

/** Both ends brought to rest by the machines of LACP, over the cables that join them; by port id. */
function settled(design: Design, near: Bundle, far: Bundle, joined: readonly string[]): ReadonlyMap<string, LacpPort> {
  const farPorts = joined.map((id) => (farEnd(linkAt(design, id)!, id) as { port: string }).port);
  const sides = [
    { bundle: near, ports: joined },
    { bundle: far, ports: farPorts },
  ];
  const starts = sides.map(({ bundle, ports }) => {
    const { members, ...plan } = planned(design, bundle, ports);
    return startEnd({ ...plan, key: bundle.key ?? bundle.number, timeout: bundle.timeout ?? 'long', ports: members });
  });
  const number = (id: string) => portById(design, id)!.number;
  const cables = joined.map((id, i) => ({
    a: { end: 0, port: number(id) },
    b: { end: 1, port: number(farPorts[i]!) },
  }));
  const rest = runToRest(starts, cables);
  return new Map(
    sides.flatMap(({ ports }, side) =>
      ports.map((id) => [id, rest[side]!.ports.find((p) => p.number === number(id))!] as const),
    ),
  );
}

const CHURN_WORD = {
  NO_CHURN: 'in step',
  CHURN_MONITOR: 'not yet in sync',
  CHURN: 'out of sync for a minute',
} as const;

const party = (i: LacpInfo): string =>
  i.key === 0
    ? 'no partner'
    : `${systemIdWords(i.systemPriority, i.system)}, key ${i.key}, port ${i.portPriority} · ${i.port}`;

/** What each end says of itself and of its partner once the exchange has come to rest, with the state bits in words. */
export function Exchange({ near, far, verdict }: { near: Bundle; far: Bundle; verdict: BundleVerdict }) {
  const drawn = useSession((s) => s.design);
  // The switches of a pair speak as one system.
  const design = actingDesign(drawn);
  const [here, there] = [near, far].map(
    (b) => bundleById(design, b.id) ?? bundleById(design, sharedWith(drawn, b)?.id ?? '') ?? b,
  ) as [Bundle, Bundle];
  const joined = useMemo(
    () =>
      verdict.members.flatMap((m) => {
        const link = linkAt(design, m.port);
        const end = link && farEnd(link, m.port);
        return end && 'port' in end && there.members.includes(end.port) ? [m.port] : [];
      }),
    [verdict, design, there],
  );
  const ports = useMemo(() => settled(design, here, there, joined), [design, here, there, joined]);
  return (
    <details className="exchange">
      <summary>What the two ends send each other</summary>
      <table className="rows">
        <thead>
          <tr>
            <th scope="col">end</th>
            <th scope="col">actor</th>
            <th scope="col">it says</th>
            <th scope="col">partner</th>
            <th scope="col">it hears</th>
            <th scope="col">actor, partner churn</th>
          </tr>
        </thead>
        <tbody>
          {[...ports].map(([id, p]) => {
            const port = portById(design, id)!;
            return (
              <tr key={id}>
                <th scope="row">
                  {switchById(drawn, portById(drawn, id)!.switch)?.name} {port.name}
                </th>
                <td className="mono">{party(p.actor)}</td>
                <td>{stateWords(p.actor.state).join(', ')}</td>
                <td className="mono">{party(p.partner)}</td>
                <td>{stateWords(p.partner.state).join(', ') || 'nothing'}</td>
                <td>
                  {CHURN_WORD[p.actorChurn]}, {CHURN_WORD[p.partnerChurn]}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </details>
  );
}
