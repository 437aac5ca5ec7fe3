/** Who spoke in a capture, and what that makes of each as a device. */
import { LACP_STATE } from '../../protocols/frames';
import type { Lacpdu } from '../../protocols/frames';
import { numberToMac, splitPortId } from '../../standard';
import type { BridgeId } from '../../standard';
import { known, nothingOf } from '../model';
import type {
  Observation,
  ObservedAggregate,
  ObservedNeighbour,
  ObservedPort,
  ObservedProtocol,
  ObservedRegion,
  ObservedRole,
  ObservedState,
  ObservedTreePort,
  Source,
} from '../model';
import type { LldpFrame } from './lldp-frame';
import { LINK_TYPE } from './packets';
import type { CaptureInterface } from './packets';

/** Hellos after which a port that said it was designated is no longer believed. */
const HELLOS = 3;

/** What one port said last in one tree. */
export interface Saying {
  readonly bridge: BridgeId;
  readonly root: BridgeId;
  readonly cost: number;
  readonly portId: number;
  readonly role: ObservedRole | null;
  readonly state: ObservedState | null;
  at: number;
  readonly hello: number;
}

export interface Sender {
  readonly mac: number;
  protocol: ObservedProtocol | null;
  region: ObservedRegion | null;
  timers: Observation['timers'];
  readonly trees: Map<string, Map<number, Saying>>;
  /** LACP by port number. */
  readonly lacp: Map<number, Lacpdu>;
  readonly interfaces: Map<number, Set<number>>;
  lldp: LldpFrame | null;
  readonly sources: Set<number>;
}

/** All senders, where they were received, and until when. */
export interface Heard {
  readonly senders: readonly Sender[];
  readonly interfaces: readonly CaptureInterface[];
  readonly until: number;
}

/** A name and port names, where the interface is called after the one port whose frames it holds: `quay-1 p3`. */
function labels(sender: Sender, { senders, interfaces }: Heard): { name: string | null; ports: Map<number, string> } {
  const ports = new Map<number, string>();
  let name: string | null = null;
  for (const [index, numbers] of sender.interfaces) {
    const match = /^(\S+) (\S.*)$/.exec(interfaces[index]?.name ?? '');
    const alone = senders.every((s) => s === sender || !s.interfaces.has(index));
    if (!match || !alone || numbers.size !== 1) continue;
    name ??= match[1]!;
    if (name === match[1]) ports.set([...numbers][0]!, match[2]!);
  }
  return { name, ports };
}

/** What a sender told of itself. */
export function observationOf(sender: Sender, source: Source, heard: Heard): Observation {
  const labelled = labels(sender, heard);
  const nameOf = (port: number): string => labelled.ports.get(port) ?? `#${port}`;
  const numbers = new Set([...[...sender.trees.values()].flatMap((ports) => [...ports.keys()]), ...sender.lacp.keys()]);
  const trees = [...sender.trees].map(([id, ports]) => {
    const last = [...ports.values()].sort((a, b) => b.at - a.at)[0]!;
    return {
      id,
      bridge: last.bridge,
      root: last.root,
      rootCost: last.cost,
      ports: [...ports].map(([number, s]): ObservedTreePort => {
        // What a port that fell silent said is old: it may have any role by now.
        const fresh = heard.until - s.at <= HELLOS * s.hello;
        return {
          port: nameOf(number),
          role: fresh ? s.role : null,
          state: fresh ? s.state : null,
          priority: splitPortId(s.portId).priority,
        };
      }),
    };
  });
  return {
    ...nothingOf(source),
    name: sender.lldp?.name ?? labelled.name,
    mac: numberToMac(sender.mac),
    addresses: sender.lldp?.chassisMac ? [sender.lldp.chassisMac] : [],
    protocol: sender.protocol,
    timers: sender.timers,
    region: sender.region,
    ports: [...numbers].map((n): ObservedPort => ({ name: nameOf(n), number: n })),
    aggregates: aggregatesOf(sender, nameOf),
    trees,
    neighbours: neighboursOf(sender, nameOf, heard),
  };
}

/** Others that were heard on the same link. The old cooked form does not tell interfaces apart. */
function neighboursOf(
  sender: Sender,
  nameOf: (port: number) => string,
  { senders, interfaces }: Heard,
): ObservedNeighbour[] {
  return [...sender.interfaces].flatMap(([index, numbers]) => {
    if (interfaces[index]?.linkType === LINK_TYPE.cooked) return [];
    return [...numbers].flatMap((number) =>
      senders.flatMap((other) =>
        other === sender
          ? []
          : [...(other.interfaces.get(index) ?? [])].map((far): ObservedNeighbour => ({
              port: nameOf(number),
              by: 'bpdu',
              name: null,
              mac: numberToMac(other.mac),
              farPort: `#${far}`,
              farDescription: null,
              farMac: null,
              bridge: true,
              management: [],
            })),
      ),
    );
  });
}

/** Ports that negotiate under one key are of one bundle, whose name no frame tells. */
function aggregatesOf(sender: Sender, nameOf: (port: number) => string): ObservedAggregate[] {
  const byKey = new Map<number, Lacpdu[]>();
  for (const pdu of sender.lacp.values()) byKey.set(pdu.actor.key, [...(byKey.get(pdu.actor.key) ?? []), pdu]);
  return [...byKey].map(([key, pdus]): ObservedAggregate => {
    const { actor } = pdus[0]!;
    return {
      name: `key ${key}`,
      mode: 'lacp',
      key,
      activity: actor.state & LACP_STATE.activity ? 'active' : 'passive',
      timeout: actor.state & LACP_STATE.timeout ? 'short' : 'long',
      system: numberToMac(actor.system),
      systemPriority: actor.systemPriority,
      members: pdus.map((p) =>
        known({
          port: nameOf(p.actor.port),
          number: p.actor.port,
          priority: p.actor.portPriority,
          active: (p.actor.state & LACP_STATE.distributing) !== 0,
          actorState: p.actor.state,
          partnerState: p.partner.state,
          partner:
            p.partner.system === 0
              ? null
              : {
                  systemPriority: p.partner.systemPriority,
                  system: numberToMac(p.partner.system),
                  key: p.partner.key,
                  port: p.partner.port,
                },
        }),
      ),
    };
  });
}
