/** Files for systemd-networkd, device by device: bridge, bonds, ports, VLANs. One text, each file under its name. */
import { bundlesOf, modeOf, portById, portPriorityInForce, portsOf, priorityInForce, timersOf } from '../design';
import type { Bundle, Design, Port, Switch } from '../design';
import { vlanMembership } from '../standard';
import { MOST_COST } from './linux-lab';

const ALL_TREES = { vlan: null, instance: null } as const;

const file = (at: string, name: string, lines: readonly string[]): string =>
  [`# ${at}: /etc/systemd/network/${name}`, ...lines, ''].join('\n');

/** Interface names that Linux takes: at most 15 characters, without blanks. */
const ifName = (e: Port | Bundle): string => ('members' in e ? `bond${e.number}` : `port${e.number}`);

function bridgeFile(design: Design, s: Switch): string {
  const { helloTime, maxAge, forwardDelay } = timersOf(s);
  const filters = [...portsOf(design, s.id), ...bundlesOf(design, s.id)].some((e) => (e.vlans ?? 'all') !== 'all');
  const note =
    modeOf(design, s) === 'stp' ? [] : ['# The kernel runs one classic tree for all VLANs, whatever the design has.'];
  return file(s.name, '10-br.netdev', [
    ...note,
    '[NetDev]',
    'Name=br',
    'Kind=bridge',
    `MACAddress=${s.mac}`,
    '[Bridge]',
    'STP=yes',
    `Priority=${priorityInForce(design, s, ALL_TREES).value}`,
    `HelloTimeSec=${helloTime}`,
    `MaxAgeSec=${maxAge}`,
    `ForwardDelaySec=${forwardDelay}`,
    ...(s.ageingTime === undefined ? [] : [`AgeingTimeSec=${s.ageingTime}`]),
    `VLANFiltering=${filters ? 'yes' : 'no'}`,
  ]);
}

function bondFile(s: Switch, b: Bundle): string {
  const lacp = b.kind !== 'static';
  return file(s.name, `20-${ifName(b)}.netdev`, [
    '[NetDev]',
    `Name=${ifName(b)}`,
    `Description=${b.name}`,
    'Kind=bond',
    '[Bond]',
    `Mode=${lacp ? '802.3ad' : 'balance-xor'}`,
    'MIIMonitorSec=0.1s',
    ...(lacp ? [`LACPTransmitRate=${b.timeout === 'short' ? 'fast' : 'slow'}`] : []),
    ...(b.minActive === undefined ? [] : [`MinLinks=${b.minActive}`]),
    ...(lacp ? [`AdActorSystem=${b.systemMac ?? s.mac}`] : []),
    ...(lacp && (b.systemPriority ?? s.lacpPriority)
      ? [`AdActorSystemPriority=${b.systemPriority ?? s.lacpPriority}`]
      : []),
    ...(lacp && (b.key ?? b.number) <= 1023 ? [`AdUserPortKey=${b.key ?? b.number}`] : []),
  ]);
}

function costLines(cost: number | undefined): string[] {
  if (cost === undefined) return [];
  return cost > MOST_COST
    ? [`# Cost ${cost} is above ${MOST_COST}, the most that the kernel takes.`]
    : [`Cost=${cost}`];
}

function portFile(design: Design, s: Switch, e: Port | Bundle, bundle: Bundle | undefined): string {
  const head = ['[Match]', `Name=${ifName(e)}`];
  const network = bundle ? `Bond=${ifName(bundle)}` : 'Bridge=br';
  const carried = vlanMembership(e.vlans ?? 'all');
  const vlans = (e.vlans ?? 'all') === 'all' ? [] : design.vlans.filter((v) => carried[v.number]);
  const bridge = [
    '[Bridge]',
    ...costLines(e.cost),
    `Priority=${portPriorityInForce(design, e, ALL_TREES).value / 4}`,
    ...(e.bpduGuard ? ['UseBPDU=no'] : []),
    ...(e.rootGuard ? ['AllowPortToBeRoot=no'] : []),
  ];
  const down = 'down' in e && e.down ? ['[Link]', 'ActivationPolicy=down'] : [];
  return file(s.name, `30-${ifName(e)}.network`, [
    ...head,
    ...down,
    '[Network]',
    network,
    ...(bundle ? [] : bridge),
    ...(bundle
      ? []
      : vlans.flatMap((v) => [
          '[BridgeVLAN]',
          `VLAN=${v.number}`,
          ...(e.native === v.number ? [`PVID=${v.number}`, `EgressUntagged=${v.number}`] : []),
        ])),
  ]);
}

export function exportNetworkd(design: Design): string {
  return design.switches
    .flatMap((s) => {
      const bundles = bundlesOf(design, s.id);
      const bundleOf = new Map(
        bundles.flatMap((b) => b.members.flatMap((m) => (portById(design, m) ? [[m, b] as const] : []))),
      );
      return [
        bridgeFile(design, s),
        ...bundles.map((b) => bondFile(s, b)),
        ...portsOf(design, s.id).map((p) => portFile(design, s, p, bundleOf.get(p.id))),
        ...bundles.map((b) => portFile(design, s, b, undefined)),
      ];
    })
    .join('\n');
}
