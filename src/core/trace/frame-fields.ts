/** A control frame field by field, with the octets each stands in. */
import {
  BPDU_FIELDS,
  FLAG,
  LACP_STATE,
  MSTI_FIELDS,
  MST_FIELDS,
  decodeBpdu,
  decodeLacpdu,
  flagRole,
  openEnvelope,
} from '../protocols/frames';
import { formatBridgeId, formatPortId, numberToMac } from '../standard';

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

function bpduFields(payload: Uint8Array, base: number): FrameField[] {
  const bpdu = decodeBpdu(payload);
  if (!bpdu) return [];
  const rapid = bpdu.type === 'rst' || bpdu.type === 'mst';
  const fields: FrameField[] = [
    {
      name: 'BPDU',
      value: {
        config: 'configuration',
        notification: 'topology change notification',
        rst: 'rapid',
        mst: 'multiple instances',
      }[bpdu.type],
      at: base,
      width: 4,
    },
  ];
  if (bpdu.type === 'notification') return fields;
  for (const { name, at, width } of BPDU_FIELDS) {
    const here = base + at;
    const value = bpdu[name];
    if (name === 'rootMac' || name === 'bridgeMac') continue;
    if (name === 'rootPriority')
      fields.push({ name: 'root', value: formatBridgeId({ priority: value, mac: bpdu.rootMac }), at: here, width: 8 });
    else if (name === 'bridgePriority')
      fields.push({
        name: bpdu.type === 'mst' ? 'regional root' : 'bridge',
        value: formatBridgeId({ priority: value, mac: bpdu.bridgeMac }),
        at: here,
        width: 8,
      });
    else if (name === 'port') fields.push({ name: NAMES[name]!, value: formatPortId(value), at: here, width });
    else if (name === 'flags') fields.push({ name, value: flagWords(value, rapid), at: here, width });
    else
      fields.push({
        name: NAMES[name] ?? name,
        value: TIMES.has(name) ? `${value / 256} s` : String(value),
        at: here,
        width,
      });
  }
  const { mst } = bpdu;
  if (!mst) return fields;
  const text = new TextDecoder().decode(mst.configuration.subarray(1, 33)).replace(/\0+$/, '');
  const digest = [...mst.configuration.subarray(35)].map((o) => o.toString(16).padStart(2, '0')).join('');
  fields.push({
    name: 'region',
    value: `${text}, revision ${(mst.configuration[33]! << 8) | mst.configuration[34]!}`,
    at: base + 38,
    width: 35,
  });
  fields.push({ name: 'digest', value: digest, at: base + 73, width: 16 });
  for (const { name, at, width } of MST_FIELDS) {
    if (name === 'bridgeMac') continue;
    const value =
      name === 'bridgePriority'
        ? formatBridgeId({ priority: mst.bridgePriority, mac: mst.bridgeMac })
        : String(mst[name]);
    fields.push({
      name: name === 'bridgePriority' ? 'bridge' : NAMES[name]!,
      value,
      at: base + at,
      width: name === 'bridgePriority' ? 8 : width,
    });
  }
  mst.instances.forEach((m, i) => {
    const start = base + 102 + 16 * i;
    const id = m.regionalPriority & 0xfff;
    fields.push({ name: `instance ${id}`, value: flagWords(m.flags, true), at: start, width: 1 });
    fields.push({
      name: 'regional root',
      value: formatBridgeId({ priority: m.regionalPriority, mac: m.regionalMac }),
      at: start + 1,
      width: 8,
    });
    for (const { name, at, width } of MSTI_FIELDS)
      if (name === 'internalCost' || name === 'hops')
        fields.push({ name: NAMES[name]!, value: String(m[name]), at: start + at, width });
  });
  return fields;
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
      { name: `${who} system`, value: `${info.systemPriority}.${numberToMac(info.system)}`, at, width: 8 },
      { name: `${who} key`, value: String(info.key), at: at + 8, width: 2 },
      { name: `${who} port`, value: `${info.portPriority}.${info.port}`, at: at + 10, width: 4 },
      { name: `${who} state`, value: stateText(info.state), at: at + 14, width: 1 },
    ];
  });
}

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
  return [
    ...head,
    ...(env.kind === 'lacpdu' ? lacpFields(env.payload, env.at) : bpduFields(env.payload, env.at)),
    ...named,
  ];
}
