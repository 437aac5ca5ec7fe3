/** Settings of each switch as JSON after the OpenConfig models, in the encoding of RFC 7951. */
import { bundlesOf, isPerVlan, linkTypeOf, modeOf, portById, portsOf } from '../design';
import type { Bundle, Design, Port, Switch } from '../design';
import { mstConfigOf, regionOf } from '../network';
import { BRIDGE_PRIORITY, formatVlanRanges, parseVlanRanges } from '../standard';

type Json = Record<string, unknown>;

/** Leaves that are set; the others are left to the device. */
const given = (of: Json): Json => Object.fromEntries(Object.entries(of).filter(([, v]) => v !== undefined));

const TYPES = 'openconfig-spanning-tree-types:';
const PROTOCOL = { rstp: 'RSTP', mstp: 'MSTP', 'per-vlan-rstp': 'RAPID_PVST' } as const;

/** Costs and port priorities of a tree, for the ports that have one of their own. */
const treePorts = (
  all: readonly (Port | Bundle)[],
  cost: (e: Port | Bundle) => number | undefined,
  priority: (e: Port | Bundle) => number | undefined,
): Json | undefined => {
  const list = all.flatMap((e) => {
    const config = given({ name: e.name, cost: cost(e), 'port-priority': priority(e) });
    return Object.keys(config).length > 1 ? [{ name: e.name, config }] : [];
  });
  return list.length > 0 ? { interface: list } : undefined;
};

const timers = (s: Switch): Json =>
  given({
    'hello-time': s.helloTime,
    'max-age': s.maxAge,
    'forwarding-delay': s.forwardDelay,
    'hold-count': s.holdCount,
  });

/** VLANs as the models write them: numbers, and ranges as `110..120`. */
const vlanLeaves = (set: string): (number | string)[] =>
  set.split(',').map((part): number | string => {
    const [from, to] = part.trim().split('-');
    return to === undefined ? Number(from) : `${from}..${to}`;
  });

function mstContainer(design: Design, s: Switch, all: readonly (Port | Bundle)[]): Json {
  const config = mstConfigOf(design, s);
  const instance = (id: number): Json => ({
    'mst-id': id,
    config: {
      'mst-id': id,
      vlan: vlanLeaves(
        formatVlanRanges([...config.map.keys()].filter((v) => v > 0 && v < 4095 && config.map[v] === id)),
      ),
      'bridge-priority': s.instancePriority?.[id] ?? s.priority ?? BRIDGE_PRIORITY.default,
    },
    ...given({
      interfaces: treePorts(
        all,
        (e) => e.instanceCost?.[id] ?? e.internalCost ?? e.cost,
        (e) => e.instancePriority?.[id] ?? e.priority,
      ),
    }),
  });
  return {
    config: given({
      name: config.name,
      revision: config.revision,
      'max-hop': regionOf(design, s)?.maxHops,
      ...timers(s),
    }),
    ...(config.instances.length > 0 ? { 'mst-instances': { 'mst-instance': config.instances.map(instance) } } : {}),
  };
}

function vlanTrees(design: Design, s: Switch, all: readonly (Port | Bundle)[]): Json {
  const one = (vlan: number): Json => ({
    'vlan-id': vlan,
    config: {
      'vlan-id': vlan,
      'bridge-priority': s.vlanPriority?.[vlan] ?? s.priority ?? BRIDGE_PRIORITY.default,
      ...timers(s),
    },
    ...given({
      interfaces: treePorts(
        all,
        (e) => e.vlanCost?.[vlan] ?? e.cost,
        (e) => e.vlanPriority?.[vlan] ?? e.priority,
      ),
    }),
  });
  return { vlan: design.vlans.map((v) => one(v.number)) };
}

function oneTree(s: Switch, all: readonly (Port | Bundle)[]): Json {
  return {
    config: { 'bridge-priority': s.priority ?? BRIDGE_PRIORITY.default, ...timers(s) },
    ...given({
      interfaces: treePorts(
        all,
        (e) => e.cost,
        (e) => e.priority,
      ),
    }),
  };
}

/** Edge, link type and guards of a port. */
function portConfig(design: Design, e: Port | Bundle): Json {
  const shared = !('members' in e) && e.linkType !== undefined ? linkTypeOf(design, e) : undefined;
  return given({
    name: e.name,
    'edge-port': e.edge ? `${TYPES}EDGE_ENABLE` : e.autoEdge ? `${TYPES}EDGE_AUTO` : undefined,
    'link-type': shared === undefined ? undefined : shared === 'shared' ? 'SHARED' : 'P2P',
    guard: e.rootGuard ? 'ROOT' : e.loopGuard ? 'LOOP' : undefined,
    'bpdu-guard': e.bpduGuard,
    'bpdu-filter': e.bpduFilter,
  });
}

function spanningTree(design: Design, s: Switch, all: readonly (Port | Bundle)[]): Json | null {
  const mode = modeOf(design, s);
  if (mode === 'stp' || mode === 'per-vlan-stp') return null;
  const ports = all.map((e) => portConfig(design, e)).filter((c) => Object.keys(c).length > 1);
  const trees =
    mode === 'mstp'
      ? { mstp: mstContainer(design, s, all) }
      : isPerVlan(mode)
        ? { 'rapid-pvst': vlanTrees(design, s, all) }
        : { rstp: oneTree(s, all) };
  return {
    global: {
      config: given({
        'enabled-protocol': [TYPES + PROTOCOL[mode]],
        'bpdu-guard': s.edgeGuard,
        'bpdu-filter': s.edgeFilter,
        'bpduguard-timeout-recovery': s.guardRecovery,
      }),
    },
    ...trees,
    ...(ports.length > 0 ? { interfaces: { interface: ports.map((c) => ({ name: c.name, config: c })) } } : {}),
  };
}

/** What a port carries; nothing where it carries all VLANs. */
function switched(e: Port | Bundle): Json | undefined {
  const set = e.vlans ?? 'all';
  if (set === 'all' && e.native === undefined) return undefined;
  const parsed = set === 'all' ? null : parseVlanRanges(set);
  const only = parsed?.ok && parsed.vlans.length === 1 && (e.native === undefined || e.native === parsed.vlans[0]);
  const config =
    only && e.edge
      ? { 'interface-mode': 'ACCESS', 'access-vlan': parsed.vlans[0] }
      : given({
          'interface-mode': 'TRUNK',
          'native-vlan': e.native,
          'trunk-vlans': set === 'all' ? undefined : vlanLeaves(set),
        });
  return { 'openconfig-vlan:switched-vlan': { config } };
}

const SPEED: Readonly<Record<number, string>> = {
  10: 'SPEED_10MB',
  100: 'SPEED_100MB',
  1000: 'SPEED_1GB',
  2500: 'SPEED_2500MB',
  5000: 'SPEED_5GB',
  10_000: 'SPEED_10GB',
  25_000: 'SPEED_25GB',
  40_000: 'SPEED_40GB',
  50_000: 'SPEED_50GB',
  100_000: 'SPEED_100GB',
  200_000: 'SPEED_200GB',
  400_000: 'SPEED_400GB',
};

function portInterface(port: Port, bundle: Bundle | undefined): Json {
  const speed = SPEED[port.speed];
  const ethernet = given({
    'port-speed': speed && `openconfig-if-ethernet:${speed}`,
    'duplex-mode': port.duplex === 'half' ? 'HALF' : undefined,
    'openconfig-if-aggregate:aggregate-id': bundle?.name,
  });
  const vlans = bundle ? undefined : switched(port);
  return {
    name: port.name,
    config: given({
      name: port.name,
      type: 'iana-if-type:ethernetCsmacd',
      description: port.description,
      enabled: !port.down,
    }),
    'openconfig-if-ethernet:ethernet': { config: ethernet, ...vlans },
  };
}

function bundleInterface(b: Bundle): Json {
  const aggregation = {
    config: given({ 'lag-type': b.kind === 'lacp' ? 'LACP' : 'STATIC', 'min-links': b.minActive }),
    ...switched(b),
  };
  return {
    name: b.name,
    config: { name: b.name, type: 'iana-if-type:ieee8023adLag', enabled: true },
    'openconfig-if-aggregate:aggregation': aggregation,
  };
}

function lacp(s: Switch, bundles: readonly Bundle[]): Json | undefined {
  const own = bundles.filter((b) => b.kind === 'lacp');
  if (own.length === 0) return undefined;
  return {
    config: given({ 'system-priority': s.lacpPriority }),
    interfaces: {
      interface: own.map((b) => ({
        name: b.name,
        config: given({
          name: b.name,
          interval: b.timeout === 'short' ? 'FAST' : 'SLOW',
          'lacp-mode': b.activity === 'passive' ? 'PASSIVE' : 'ACTIVE',
          'system-id-mac': b.systemMac,
          'system-priority': b.systemPriority,
        }),
      })),
    },
  };
}

/** Settings that the models have no leaf for, by fields. */
const NO_LEAF: Readonly<Record<'switch' | 'port' | 'bundle', readonly string[]>> = {
  switch: ['ageStep', 'oneWayRecovery', 'stormRecovery', 'ageingTime', 'costScale', 'bundleCost'],
  port: [
    'tcGuard',
    'filterYields',
    'silenceGuard',
    'helloTime',
    'oneWay',
    'oneWayInterval',
    'stormLimit',
    'stormAction',
    'lacpPriority',
  ],
  bundle: [
    'tcGuard',
    'filterYields',
    'silenceGuard',
    'helloTime',
    'maxActive',
    'minRate',
    'returnDelay',
    'keepsWorking',
    'individual',
    'key',
    'shared',
    'hash',
  ],
};

function withoutLeaf(design: Design, s: Switch, ports: readonly Port[], bundles: readonly Bundle[]): string[] {
  const mode = modeOf(design, s);
  const of = (kind: keyof typeof NO_LEAF, at: string, e: object) =>
    NO_LEAF[kind].flatMap((field) => (field in e ? [`${at}${field}: ${JSON.stringify((e as Json)[field])}`] : []));
  return [
    ...(mode === 'stp' || mode === 'per-vlan-stp' ? [`the classic protocol, with all its settings`] : []),
    ...of('switch', '', s),
    ...ports.flatMap((p) => of('port', `port ${p.name}, `, p)),
    ...bundles.flatMap((b) => [
      ...of('bundle', `bundle ${b.name}, `, b),
      ...(b.kind === 'own' ? [`bundle ${b.name}: negotiation that is not LACP`] : []),
    ]),
  ];
}

function device(design: Design, s: Switch): Json {
  const [ports, bundles] = [portsOf(design, s.id), bundlesOf(design, s.id)];
  const bundleOf = new Map(bundles.flatMap((b) => b.members.map((m) => [m, b] as const)));
  const all = [...ports.filter((p) => !bundleOf.has(p.id)), ...bundles];
  const tree = spanningTree(design, s, all);
  const missing = withoutLeaf(design, s, ports, bundles);
  return given({
    'openconfig-interfaces:interfaces': {
      interface: [...ports.map((p) => portInterface(p, bundleOf.get(p.id))), ...bundles.map(bundleInterface)],
    },
    'openconfig-lacp:lacp': lacp(
      s,
      bundles.filter((b) => b.members.some((m) => portById(design, m))),
    ),
    'openconfig-spanning-tree:stp': tree ?? undefined,
    notInModel: missing.length > 0 ? missing : undefined,
  });
}

/** Settings by device; what a model has no leaf for stands in `notInModel`, nothing is dropped. */
export const openConfigOf = (design: Design): Record<string, Json> =>
  Object.fromEntries(design.switches.map((s) => [s.name, device(design, s)]));

export const exportOpenConfig = (design: Design): string =>
  `${JSON.stringify({ devices: openConfigOf(design) }, null, 2)}\n`;
