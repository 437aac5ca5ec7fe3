/** A design as a shell script that builds it on Linux: namespaces, bridges, bonds, hosts; one classic tree, as the kernel runs it. */
import {
  hostById,
  linkAt,
  modeOf,
  portById,
  portPriorityInForce,
  priorityInForce,
  segmentAt,
  switchById,
  timersOf,
} from '../design';
import type { Bundle, Design, Link, LinkEnd, Port, Switch } from '../design';
import { bundleLacpEnd } from '../network';
import { hostVlans } from '../review';
import { count, numberToMac, vlanMembership } from '../standard';
import { solveDesign } from '../trees';
import type { SolvedDesign } from '../trees';
import { LAB_AWK, LAB_BODY } from './linux-lab-body';
import { solutionOf } from './solution';

/** Highest port cost that a Linux bridge takes. */
export const MOST_COST = 65_535;
const ALL_TREES = { vlan: null, instance: null } as const;

/** The design with one classic tree for all VLANs: what a Linux bridge runs. */
export function asClassic(design: Design): Design {
  return {
    ...design,
    mode: 'stp',
    switches: design.switches.map(({ protocol: _, ...s }) => s),
    // Pairs of switches that act as one are nothing that bridges know.
    pairs: [],
    bundles: design.bundles.map(({ shared: _, ...b }) => b),
  };
}

interface Lab {
  readonly design: Design;
  readonly solved: SolvedDesign;
  /** Namespace of each switch, segment and host by its id. */
  readonly ns: ReadonlyMap<string, string>;
  /** Cost of each port and bundle by its id, divided by `factor`; none for ports that take no part. */
  readonly costs: ReadonlyMap<string, number>;
  readonly factor: number;
  readonly tooDear: readonly string[];
}

const divisor = (a: number, b: number): number => (b === 0 ? a : divisor(b, a % b));

function labOf(drawn: Design): Lab {
  const design = asClassic(drawn);
  const solved = solveDesign(design);
  const numbered = (kind: string, list: readonly { readonly id: string }[]) =>
    list.map((e, i) => [`${kind} ${e.id}`, `${kind}${i + 1}`] as const);
  const ns = new Map([
    ...numbered('s', design.switches),
    ...numbered('g', design.segments),
    ...numbered('h', design.hosts),
  ]);
  const costs = new Map<string, number>();
  const [of] = solved.trees;
  const rows = of ? solutionOf(solved, of).ports : [];
  const names = new Map(
    [...design.ports, ...design.bundles].map((e) => [`${switchById(design, e.switch)?.name}\n${e.name}`, e.id]),
  );
  for (const p of rows) costs.set(names.get(`${p.switch}\n${p.port}`)!, p.cost);
  const largest = Math.max(1, ...costs.values());
  // Costs in their proportion decide alike: where they are too large, all are divided by what divides them all.
  const common = largest > MOST_COST ? [...costs.values()].reduce(divisor, 0) : 1;
  const factor = common || 1;
  const tooDear = [...costs].flatMap(([id, cost]) => (cost / factor > MOST_COST ? [id] : []));
  for (const [id, cost] of costs) costs.set(id, Math.min(MOST_COST, cost / factor));
  return { design, solved, ns, costs, factor, tooDear };
}

const isOn = (design: Design, id: string): boolean => switchById(design, id)?.off !== true;

/** Name of an interface: ports and bundles by their number. */
const nameOf = (e: Port | Bundle): string => ('members' in e ? `b${e.number}` : `p${e.number}`);

function switchRow({ design, ns }: Lab, s: Switch): string {
  const { helloTime, maxAge, forwardDelay } = timersOf(s);
  const priority = priorityInForce(design, s, ALL_TREES).value;
  return [ns.get(`s ${s.id}`), s.mac, priority, helloTime * 100, maxAge * 100, forwardDelay * 100, s.name].join(' ');
}

/** Ports and bundles of a bridge by number; members stand for nothing by themselves. */
function bridgePorts(design: Design, s: Switch): (Port | Bundle)[] {
  const members = new Set(design.bundles.flatMap((b) => b.members));
  const own = [...design.bundles, ...design.ports.filter((p) => !members.has(p.id))].filter((e) => e.switch === s.id);
  return own
    .filter((e) => 'members' in e || linkAt(design, e.id) || segmentAt(design, e.id))
    .sort((a, b) => a.number - b.number);
}

function portRow({ design, ns, costs }: Lab, e: Port | Bundle): string {
  const priority = portPriorityInForce(design, e, ALL_TREES).value / 4;
  const onOff = (on: boolean | undefined) => (on ? 'on' : 'off');
  return [
    ns.get(`s ${e.switch}`),
    nameOf(e),
    costs.get(e.id) ?? 100,
    priority,
    onOff(e.bpduGuard),
    onOff(e.rootGuard),
    e.name,
  ].join(' ');
}

function bundleRow({ design, ns }: Lab, b: Bundle): string {
  const members = b.members.flatMap((m) => portById(design, m) ?? []).map(nameOf);
  const { system, systemPriority } = bundleLacpEnd(design, b);
  return [
    ns.get(`s ${b.switch}`),
    nameOf(b),
    members.join(',') || '-',
    b.kind === 'static' ? 'balance-xor' : '802.3ad',
    b.timeout === 'short' ? 'fast' : 'slow',
    b.activity === 'passive' ? 'off' : 'on',
    Math.min(1023, b.key ?? b.number),
    numberToMac(system),
    systemPriority || 1,
    b.minActive ?? 0,
  ].join(' ');
}

/** Where an end of a cable is: namespace and interface. */
function placeOf({ design, ns }: Lab, link: Link, end: LinkEnd): string {
  if ('port' in end) {
    const port = portById(design, end.port)!;
    return `${ns.get(`s ${port.switch}`)} ${nameOf(port)}`;
  }
  const cards = design.links.filter((l) => [l.a, l.b].some((e) => 'host' in e && e.host === end.host));
  return `${ns.get(`h ${end.host}`)} eth${cards.indexOf(link)}`;
}

const stands = (design: Design, end: LinkEnd): boolean =>
  'host' in end ? hostById(design, end.host) !== undefined : isOn(design, portById(design, end.port)?.switch ?? '');

function cableRows(lab: Lab): { cables: string[]; down: string[]; hubPorts: string[] } {
  const { design, ns } = lab;
  const [cables, down, hubPorts]: [string[], string[], string[]] = [[], [], []];
  const dark = (end: LinkEnd) => 'port' in end && portById(design, end.port)?.down === true;
  for (const link of design.links.filter((l) => [l.a, l.b].every((e) => stands(design, e)))) {
    const ends = [link.a, link.b].map((e) => placeOf(lab, link, e));
    cables.push(ends.join(' '));
    [link.a, link.b].forEach((e, i) => {
      if (link.down || dark(e)) down.push(ends[i]!);
    });
  }
  for (const segment of design.segments)
    segment.ports.forEach((id, i) => {
      const end = { port: id };
      if (!stands(design, end)) return;
      const at = `${ns.get(`s ${portById(design, id)!.switch}`)} ${nameOf(portById(design, id)!)}`;
      const hub = `${ns.get(`g ${segment.id}`)} p${i + 1}`;
      cables.push(`${at} ${hub}`);
      hubPorts.push(hub);
      if (segment.down || dark(end)) down.push(at);
    });
  return { cables, down, hubPorts };
}

function hostRows({ design, ns }: Lab): string[] {
  const vlans = hostVlans(design);
  const seen = new Map<number, number>();
  return design.hosts.map((h, i) => {
    const vlan = vlans[i] ?? 1;
    const nth = (seen.get(vlan) ?? 0) + 1;
    seen.set(vlan, nth);
    const bond = h.bond === undefined ? 'none' : h.bond === 'static' ? 'balance-xor' : '802.3ad';
    return `${ns.get(`h ${h.id}`)} 10.${vlan >> 8}.${vlan & 255}.${nth}/24 ${bond} ${h.name}`;
  });
}

/** VLANs of each port and bundle; none where every port carries all of them. */
function vlanRows({ design, ns }: Lab): string[] {
  const all = [...design.ports, ...design.bundles];
  if (all.every((e) => (e.vlans ?? 'all') === 'all' && e.native === undefined)) return [];
  return design.switches
    .filter((s) => isOn(design, s.id))
    .flatMap((s) =>
      bridgePorts(design, s).flatMap((e) => {
        const carried = vlanMembership(e.vlans ?? 'all');
        const hosts = linkAt(design, 'members' in e ? (e.members[0] ?? '') : e.id);
        const leadsToHost = hosts !== undefined && [hosts.a, hosts.b].some((end) => 'host' in end);
        return design.vlans
          .filter((v) => carried[v.number])
          .map(({ number }) => {
            const untagged =
              e.native === number || (leadsToHost && e.native === undefined && (e.vlans ?? 'all') === String(number));
            return `${ns.get(`s ${s.id}`)} ${nameOf(e)} ${number}${untagged ? ' pvid untagged' : ''}`;
          });
      }),
    );
}

/** What a Linux bridge does not run, in sentences of a list. */
function leftOut(drawn: Design, { tooDear, design }: Lab): string[] {
  const others = drawn.switches.filter((s) => modeOf(drawn, s) !== 'stp').length;
  const perTree = [...drawn.switches, ...drawn.ports, ...drawn.bundles].some((e) =>
    ['vlanPriority', 'vlanCost', 'instancePriority', 'instanceCost'].some((t) => t in e),
  );
  const named = (ids: readonly string[]) =>
    ids
      .map((id) => [...design.ports, ...design.bundles].find((e) => e.id === id)!)
      .map((e) => `${switchById(design, e.switch)?.name} ${e.name}`)
      .join(', ');
  const guards = [...drawn.ports, ...drawn.bundles].filter(
    (e) => e.loopGuard || e.silenceGuard || e.tcGuard || e.bpduFilter,
  ).length;
  return [
    others > 0 &&
      `modes: ${count(others, 'switch runs', 'switches run')} another protocol than the classic one; here all run one classic tree for all VLANs`,
    perTree && 'priorities and costs of single VLANs and instances: one tree has the values for all',
    drawn.pairs.length > 0 && 'pairs of switches that act as one',
    tooDear.length > 0 &&
      `costs above ${MOST_COST}, the most that the kernel takes, are ${MOST_COST}: ${named(tooDear)}`,
    guards > 0 && `guards other than BPDU guard and root guard: ${count(guards, 'port')}`,
    drawn.bundles.some((b) => b.kind === 'own') && 'negotiation that is not LACP: LACP is used',
    drawn.ports.some((p) => p.duplex === 'half') && 'half duplex',
  ].filter((line) => line !== false);
}

/** `NAME='…'`, quoted for the shell. */
const table = (name: string, rows: readonly string[]): string =>
  `${name}='${rows.join('\n').replaceAll("'", `'\\''`)}'`;

/**
 * The script: `up`, `down`, `show` (JSON as `solve` prints it), `fail SWITCH PORT`, `restore SWITCH PORT`. Whether the kernel
 * has bonds and VLAN filtering is asked when it runs; what is left out is said.
 */
export function exportLinuxLab(drawn: Design): string {
  const lab = labOf(drawn);
  const { design, ns } = lab;
  const on = design.switches.filter((s) => isOn(design, s.id));
  const { cables, down, hubPorts } = cableRows(lab);
  const missing = leftOut(drawn, lab);
  const bundles = design.bundles.filter((b) => isOn(design, b.switch));
  const names = [...design.ports, ...design.bundles].map((e) =>
    [ns.get(`s ${e.switch}`), nameOf(e), switchById(design, e.switch)?.name, e.name].join('\t'),
  );
  return [
    '#!/bin/sh',
    `# ${JSON.stringify(drawn.name)} as a network of namespaces, bridges and bonds. Run as root; needs iproute2 and awk.`,
    missing.length === 0
      ? '# The kernel runs all of this design.'
      : '# The kernel does not run all of this design; LEFT_OUT below says what.',
    'set -u',
    table('LEFT_OUT', missing),
    `FACTOR=${lab.factor}`,
    '# namespace, MAC address, priority, hello time, maximum age, forward delay in 1/100 s, name',
    table(
      'SWITCHES',
      on.map((s) => switchRow(lab, s)),
    ),
    table(
      'HUBS',
      design.segments.map((g) => `${ns.get(`g ${g.id}`)} ${g.name}`),
    ),
    '# namespace, address, bond, name',
    table('HOSTS', hostRows(lab)),
    '# both ends of each cable: namespace, interface',
    table('CABLES', cables),
    '# ends that stay dark',
    table('DOWN', down),
    '# namespace, interface, members, mode, rate, starts the negotiation, key, system, its priority, fewest members',
    table(
      'BUNDLES',
      bundles.map((b) => bundleRow(lab, b)),
    ),
    '# namespace, interface, cost, priority, BPDU guard, root guard, name',
    table(
      'PORTS',
      on.flatMap((s) => bridgePorts(design, s).map((e) => portRow(lab, e))),
    ),
    table('HUBPORTS', hubPorts),
    '# namespace, interface, VLAN, whether it travels untagged',
    table('VLANS', vlanRows(lab)),
    '# namespace, interface, switch, port',
    table('NAMES', names),
    LAB_BODY.trim().replace('@AWK@', LAB_AWK.trim()),
    '',
  ].join('\n');
}
