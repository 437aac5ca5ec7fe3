/** A control frame field by field, with the octets each stands in. */
import {
  BPDU_FIELDS,
  FLAG,
  LACP_STATE,
  MSTI_FIELDS,
  MST_FIELDS,
  decodeBpdu,
  decodeLacpdu,
  decodeOampdu,
  flagRole,
  openEnvelope,
} from '../protocols/frames';
import type { Bpdu, MstPart, MstiPart } from '../protocols/frames';
import { OCTET_SECONDS, bridgeIdWords, formatPortId, systemIdWords } from '../standard';

export interface FrameField {
  readonly name: string;
  readonly value: string;
  /** First octet in the frame, and how many. */
  readonly at: number;
  readonly width: number;
}

const NAMES: Record<string, string> = {
  flags: 'flags',
  rootPathCost: 'root path cost',
  port: 'port identifier',
  messageAge: 'message age',
  maxAge: 'maximum age',
  helloTime: 'hello time',
  forwardDelay: 'forward delay',
  internalCost: 'internal root path cost',
  hops: 'remaining hops',
};
const TIMES = new Set(['messageAge', 'maxAge', 'helloTime', 'forwardDelay']);

/** `designated, proposal, learning` */
export function flagWords(flags: number, rapid: boolean): string {
  const words = [
    ...(rapid ? [flagRole(flags)] : []),
    ...(flags & FLAG.topologyChange ? ['topology change'] : []),
    ...(flags & FLAG.acknowledgement ? [rapid ? 'master' : 'acknowledged'] : []),
    ...(rapid && flags & FLAG.proposal ? ['proposal'] : []),
    ...(rapid && flags & FLAG.learning ? ['learning'] : []),
    ...(rapid && flags & FLAG.forwarding ? ['forwarding'] : []),
    ...(rapid && flags & FLAG.agreement ? ['agreement'] : []),
  ];
  return words.join(', ') || 'none';
}

const TYPE_NAMES = {
  config: 'configuration',
  notification: 'topology change notification',
  rst: 'rapid',
  mst: 'multiple instances',
} as const;

/** Fields that every BPDU but a notification has. A bridge identifier is one field: priority and address together. */
function commonFields(bpdu: Bpdu, base: number): FrameField[] {
  const rapid = bpdu.type === 'rst' || bpdu.type === 'mst';
  return BPDU_FIELDS.flatMap(({ name, at, width }): FrameField[] => {
    const here = base + at;
    const value = bpdu[name];
    switch (name) {
      case 'rootMac':
      case 'bridgeMac':
        return [];
      case 'rootPriority':
        return [{ name: 'root', value: bridgeIdWords({ priority: value, mac: bpdu.rootMac }), at: here, width: 8 }];
      case 'bridgePriority': {
        const id = bridgeIdWords({ priority: value, mac: bpdu.bridgeMac });
        return [{ name: bpdu.type === 'mst' ? 'regional root' : 'bridge', value: id, at: here, width: 8 }];
      }
      case 'port':
        return [{ name: NAMES[name]!, value: formatPortId(value), at: here, width }];
      case 'flags':
        return [{ name, value: flagWords(value, rapid), at: here, width }];
      default: {
        const text = TIMES.has(name) ? `${value / OCTET_SECONDS} s` : String(value);
        return [{ name: NAMES[name] ?? name, value: text, at: here, width }];
      }
    }
  });
}

/** Fields of the MST configuration and of the sender inside its region. */
function regionFields(mst: MstPart, base: number): FrameField[] {
  const text = new TextDecoder().decode(mst.configuration.subarray(1, 33)).replace(/\0+$/, '');
  const revision = (mst.configuration[33]! << 8) | mst.configuration[34]!;
  const digest = [...mst.configuration.subarray(35)].map((o) => o.toString(16).padStart(2, '0')).join('');
  return [
    { name: 'region', value: `${text}, revision ${revision}`, at: base + 38, width: 35 },
    { name: 'digest', value: digest, at: base + 73, width: 16 },
    ...MST_FIELDS.flatMap(({ name, at, width }): FrameField[] => {
      if (name === 'bridgeMac') return [];
      if (name !== 'bridgePriority') return [{ name: NAMES[name]!, value: String(mst[name]), at: base + at, width }];
      const id = bridgeIdWords({ priority: mst.bridgePriority, mac: mst.bridgeMac });
      return [{ name: 'bridge', value: id, at: base + at, width: 8 }];
    }),
  ];
}

function instanceFields(m: MstiPart, start: number): FrameField[] {
  const root = bridgeIdWords({ priority: m.regionalPriority, mac: m.regionalMac });
  return [
    { name: `instance ${m.regionalPriority & 0xfff}`, value: flagWords(m.flags, true), at: start, width: 1 },
    { name: 'regional root', value: root, at: start + 1, width: 8 },
    ...MSTI_FIELDS.flatMap(({ name, at, width }) =>
      name === 'internalCost' || name === 'hops'
        ? [{ name: NAMES[name]!, value: String(m[name]), at: start + at, width }]
        : [],
    ),
  ];
}

function bpduFields(payload: Uint8Array, base: number): FrameField[] {
  const bpdu = decodeBpdu(payload);
  if (!bpdu) return [];
  const type: FrameField = { name: 'BPDU', value: TYPE_NAMES[bpdu.type], at: base, width: 4 };
  if (bpdu.type === 'notification') return [type];
  const { mst } = bpdu;
  return [
    type,
    ...commonFields(bpdu, base),
    ...(mst ? regionFields(mst, base) : []),
    ...(mst?.instances ?? []).flatMap((m, i) => instanceFields(m, base + 102 + 16 * i)),
  ];
}

const stateText = (state: number) =>
  Object.entries(LACP_STATE)
    .filter(([, bit]) => state & bit)
    .map(([name]) => name)
    .join(', ') || 'none';

function lacpFields(payload: Uint8Array, base: number): FrameField[] {
  const pdu = decodeLacpdu(payload);
  if (!pdu) return [];
  return (['actor', 'partner'] as const).flatMap((who, i): FrameField[] => {
    const at = base + 4 + 20 * i;
    const info = pdu[who];
    return [
      { name: `${who} system`, value: systemIdWords(info.systemPriority, info.system), at, width: 8 },
      { name: `${who} key`, value: String(info.key), at: at + 8, width: 2 },
      { name: `${who} port`, value: `${info.portPriority}.${info.port}`, at: at + 10, width: 4 },
      { name: `${who} state`, value: stateText(info.state), at: at + 14, width: 1 },
    ];
  });
}

function keepaliveFields(payload: Uint8Array, base: number): FrameField[] {
  const told = decodeOampdu(payload);
  if (!told) return [];
  const flags = [told.fault && 'link fault', told.hears ? 'receives the other end' : 'receives nothing yet'];
  return [
    { name: 'OAMPDU', value: 'information', at: base, width: 4 },
    { name: 'flags', value: flags.filter(Boolean).join(', '), at: base + 1, width: 2 },
  ];
}

const READERS = {
  lacpdu: lacpFields,
  oampdu: keepaliveFields,
  bpdu: bpduFields,
  'vlan-bpdu': bpduFields,
  other: bpduFields,
};

/** All fields of a control frame in the order of its octets. */
export function fieldsOf(octets: Uint8Array): FrameField[] {
  const env = openEnvelope(octets);
  const mac = (at: number) => [...octets.subarray(at, at + 6)].map((o) => o.toString(16).padStart(2, '0')).join(':');
  const head: FrameField[] = [
    { name: 'destination', value: mac(0), at: 0, width: 6 },
    { name: 'source', value: mac(6), at: 6, width: 6 },
    ...(env.vlan === null ? [] : [{ name: 'VLAN', value: String(env.vlan), at: 12, width: 4 }]),
  ];
  const named: FrameField[] =
    env.named === undefined
      ? []
      : [{ name: 'VLAN of the tree', value: String(env.named), at: env.at + env.payload.length + 4, width: 2 }];
  return [...head, ...READERS[env.kind](env.payload, env.at), ...named];
}
