/** Where the engineer works from, and which devices can be reached from there over the network. */
import { linksOfHost, portById, switchById } from '../design';
import type { Design } from '../design';
import { hostVlans } from '../review';
import { switchesMeet } from './effect';
import type { Rest } from './effect';

export interface Place {
  /** Id of a host or a switch. */
  readonly at: string;
  /** VLAN in which the switches are managed. */
  readonly vlan: number;
}

/** VLAN by which switches are managed: the one that is called so; else that of the host, else the one that all have. */
export function managementVlan(design: Design, at: string): number {
  const named = design.vlans.find((v) => /manag/i.test(v.name ?? ''));
  if (named) return named.number;
  const host = design.hosts.findIndex((h) => h.id === at);
  return (host >= 0 ? hostVlans(design)[host] : null) ?? design.vlans[0]?.number ?? 1;
}

/** Switches that the place hangs on by itself: the cable to them, and their routing, is its own affair. */
function switchesAt(design: Design, { at }: Place): string[] {
  if (switchById(design, at)) return [at];
  return linksOfHost(design, at).flatMap((l) =>
    l.down ? [] : [l.a, l.b].flatMap((e) => ('port' in e ? (portById(design, e.port)?.switch ?? []) : [])),
  );
}

/** Whether a switch can be set from the place while the network is as it is. */
export function reachesFrom(rest: Rest, place: Place, device: string): boolean {
  const { design } = rest.solved.topology;
  if (!switchById(design, device) || switchById(design, device)?.off) return false;
  return switchesAt(design, place).some((own) => own === device || switchesMeet(rest, place.vlan, own, device));
}
