/** The state of a bond as the kernel prints it in /proc/net/bonding. */
import { canonicalMac } from '../../standard';
import { LACP_STATE } from '../../protocols/frames';
import { known, nothingOf } from '../model';
import type { Observation, ObservedAggregate, ObservedMember, ObservedPort, Source } from '../model';

export const isBondText = (text: string): boolean => /^Ethernet Channel Bonding Driver:/m.test(text.slice(0, 400));

type Fields = ReadonlyMap<string, string>;

/** `Name: value` lines of a section; the first of a name counts. */
function fieldsOf(section: string): Fields {
  const fields = new Map<string, string>();
  for (const line of section.split(/\r?\n/)) {
    const match = /^\s*([^:]+): ?(.*)$/.exec(line);
    if (match && !fields.has(match[1]!.trim().toLowerCase()))
      fields.set(match[1]!.trim().toLowerCase(), match[2]!.trim());
  }
  return fields;
}

const numberIn = (fields: Fields, name: string): number | undefined => {
  const value = Number(/^-?\d+/.exec(fields.get(name) ?? '')?.[0] ?? NaN);
  return Number.isFinite(value) ? value : undefined;
};

function memberOf(section: string, aggregator: number | undefined): { member: ObservedMember; port: ObservedPort } {
  const [head, actor = '', partner = ''] = section.split(/details (?:actor|partner) lacp pdu:/) as [
    string,
    string?,
    string?,
  ];
  const [own, near, far] = [fieldsOf(head), fieldsOf(actor), fieldsOf(partner)];
  const name = own.get('slave interface') ?? '?';
  const state = numberIn(near, 'port state');
  const system = canonicalMac(far.get('system mac address') ?? '');
  const id = numberIn(own, 'aggregator id');
  const up = own.get('mii status') === 'up';
  const speed = numberIn(own, 'speed');
  const silent = system === null || system === '00:00:00:00:00:00';
  return {
    member: known<ObservedMember>({
      port: name,
      number: numberIn(near, 'port number'),
      priority: numberIn(near, 'port priority'),
      active:
        state === undefined
          ? up && (aggregator === undefined || id === aggregator)
          : (state & LACP_STATE.distributing) !== 0,
      actorState: state,
      partnerState: numberIn(far, 'port state'),
      partner: silent
        ? null
        : {
            systemPriority: numberIn(far, 'system priority') ?? 0,
            system,
            key: numberIn(far, 'oper key') ?? 0,
            port: numberIn(far, 'port number') ?? 0,
          },
    }),
    port: known<ObservedPort>({
      name,
      up,
      speed,
      duplex: own.get('duplex') === 'half' ? 'half' : own.get('duplex') === 'full' ? 'full' : undefined,
      mac: canonicalMac(own.get('permanent hw addr') ?? '') ?? undefined,
    }),
  };
}

/** A bond by the text of its state; its name is that of the file. */
export function readBond(text: string, source: Source, name: string | null, bond: string): Observation {
  const [head, ...sections] = text.split(/^(?=Slave Interface:)/m) as [string, ...string[]];
  const fields = fieldsOf(head);
  const lacp = /802\.3ad/.test(fields.get('bonding mode') ?? '');
  const aggregator = numberIn(fields, 'aggregator id');
  const members = sections.map((s) => memberOf(s, aggregator));
  const key = numberIn(fields, 'actor key');
  const aggregate = known<ObservedAggregate>({
    name: bond,
    mode: lacp ? 'lacp' : /xor|round-robin/.test(fields.get('bonding mode') ?? '') ? 'static' : null,
    activity: lacp ? (fields.get('lacp active') === 'off' ? 'passive' : 'active') : undefined,
    timeout: lacp ? (fields.get('lacp rate') === 'fast' ? 'short' : 'long') : undefined,
    minActive: numberIn(fields, 'min links'),
    systemPriority: numberIn(fields, 'system priority'),
    system: canonicalMac(fields.get('system mac address') ?? '') ?? undefined,
    key,
    members: members.map((m) => m.member),
  });
  return { ...nothingOf(source), name, ports: members.map((m) => m.port), aggregates: [aggregate] };
}
