/** Who is parted from the rest by a failure that was not before, in which VLANs, and whether other cables would help. */
import { linksOfHost, portById, switchById } from '../design';
import type { Design } from '../design';
import { remembered } from '../remembered';
import { Parts } from './parts';
import type { VlanParts } from './reach';

export interface Separation {
  /** Ids in the order of the design: switches that no longer reach the largest part in a VLAN that they carry, and hosts. */
  readonly switches: readonly string[];
  readonly hosts: readonly string[];
  /** VLANs that are partitioned, ascending. */
  readonly vlans: readonly number[];
  /** Whether other working cables would do for one of them, if they carried the VLAN. */
  readonly avoidable: boolean;
}

/** Parts that working cables make of all switches, whatever they carry; −1 for a switch that is off. */
function cabledParts(design: Design): Int32Array {
  const index = new Map(design.switches.map((s, i) => [s.id, i]));
  const parts = new Parts(design.switches.length);
  const at = (port: string): number => {
    const p = portById(design, port);
    return !p || p.down || switchById(design, p.switch)?.off ? -1 : index.get(p.switch)!;
  };
  const join = (ports: readonly string[]) => {
    const on = ports.map(at).filter((b) => b >= 0);
    for (const b of on.slice(1)) parts.join(b, on[0]!);
  };
  for (const { a, b, down } of design.links) if (!down && 'port' in a && 'port' in b) join([a.port, b.port]);
  for (const s of design.segments) if (!s.down) join(s.ports);
  return Int32Array.from(design.switches, (s, i) => (s.off ? -1 : parts.top(i)));
}

/** Whether a place that is parted has cables to the largest part of its VLAN. */
function couldReach(design: Design, cabled: Int32Array, { partOf, largest }: VlanParts): (from: number) => boolean {
  const there = partOf.findIndex((part, b) => part === largest && !design.switches[b]!.off);
  return (from) => there >= 0 && from >= 0 && cabled[from] === cabled[there];
}

/** Switches that a host's working cables lead to. */
function switchesOfHost(design: Design, host: number): number[] {
  return linksOfHost(design, design.hosts[host]!.id).flatMap((link) => {
    const end = 'port' in link.a ? link.a : link.b;
    const port = 'port' in end && !link.down ? portById(design, end.port) : undefined;
    return port && !port.down ? design.switches.findIndex((s) => s.id === port.switch && !s.off) : [];
  });
}

/**
 * What a failure parts: `before` are the parts of every VLAN without it, `after` those of VLANs that can have changed with it, `withFailure` the design with it.
 * What was parted before is not counted, nor are switches that failed themselves.
 */
export function separationOf(
  withFailure: () => Design,
  before: readonly VlanParts[],
  after: readonly VlanParts[],
): Separation {
  if (after.length === 0) return { switches: [], hosts: [], vlans: [], avoidable: false };
  const failed = withFailure();
  const was = byVlan(before);
  const switches = new Set<number>();
  const hosts = new Set<number>();
  const vlans: number[] = [];
  let avoidable = false;
  let cabled: Int32Array | null = null;
  for (const now of after)
    for (const vlan of now.vlans) {
      const old = was.get(vlan);
      if (!old) continue;
      const apart = partedSwitches(failed, old, now);
      const lone = partedHosts(old, now);
      if (apart.length > 0) vlans.push(vlan);
      if (apart.length + lone.length === 0) continue;
      if (!avoidable) {
        const could = couldReach(failed, (cabled ??= cabledParts(failed)), now);
        avoidable = apart.some(could) || lone.some((h) => switchesOfHost(failed, h).some(could));
      }
      for (const s of apart) switches.add(s);
      for (const h of lone) hosts.add(h);
    }
  const ids = (set: ReadonlySet<number>, list: readonly { id: string }[]) =>
    [...set].sort((a, b) => a - b).map((i) => list[i]!.id);
  return {
    switches: ids(switches, failed.switches),
    hosts: ids(hosts, failed.hosts),
    vlans: vlans.sort((a, b) => a - b),
    avoidable,
  };
}

const byVlan = remembered(
  (parts: readonly VlanParts[]): ReadonlyMap<number, VlanParts> =>
    new Map(parts.flatMap((p) => p.vlans.map((v) => [v, p] as const))),
);

function partedSwitches(failed: Design, old: VlanParts, now: VlanParts): number[] {
  const found: number[] = [];
  for (let s = 0; s < old.partOf.length; s++) {
    const wasIn = old.partOf[s] === old.largest && old.largest >= 0;
    if (wasIn && now.partOf[s] !== now.largest && !failed.switches[s]!.off) found.push(s);
  }
  return found;
}

const partedHosts = (old: VlanParts, now: VlanParts): number[] =>
  [...old.hosts].flatMap(([h, parts]) =>
    parts.includes(old.largest) && !now.hosts.get(h)?.includes(now.largest) ? [h] : [],
  );

/** VLANs whose switches are apart already, with the switches that the largest part does not reach. */
export function partedAlready(parts: readonly VlanParts[]): { vlans: readonly number[]; switches: number[] }[] {
  return parts.flatMap(({ vlans, partOf, largest }) => {
    const apart = [...partOf.keys()].filter((s) => partOf[s]! >= 0 && partOf[s] !== largest);
    return apart.length > 0 ? [{ vlans, switches: apart }] : [];
  });
}
