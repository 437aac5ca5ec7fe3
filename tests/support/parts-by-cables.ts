/** What cables join, by walking them. */
import { portById } from '@/core/design';
import type { Design } from '@/core/design';
import { vlanMembership } from '@/core/standard';

export const carries = (design: Design, port: string, vlan: number): boolean =>
  vlanMembership(portById(design, port)!.vlans ?? 'all')[vlan] === 1;

/** Parts of a VLAN by its cables, as sets of switch and host ids; a host with two cards may be in two. Switches that are off are in none. */
export function partsByCables(design: Design, vlan: number): Set<string>[] {
  const on = new Set(design.switches.flatMap((s) => (s.off ? [] : [s.id])));
  const near = new Map<string, string[]>();
  const hosts: (readonly [host: string, at: string])[] = [];
  for (const { a, b, down } of design.links) {
    const ports = [a, b].flatMap((e) => ('port' in e ? [e.port] : []));
    const at = ports.map((p) => portById(design, p)!.switch);
    ports.forEach((p, i) => {
      if (carries(design, p, vlan) && on.has(at[i]!) && !near.has(at[i]!)) near.set(at[i]!, []);
    });
    if (down || !ports.every((p, i) => carries(design, p, vlan) && on.has(at[i]!))) continue;
    const [x, y] = at as [string, string | undefined];
    const host = [a, b].find((e) => 'host' in e);
    if (host && 'host' in host) hosts.push([host.host, x]);
    else if (y !== undefined) {
      near.get(x)!.push(y);
      near.get(y)!.push(x);
    }
  }
  const seen = new Set<string>();
  const parts = [...near.keys()].flatMap((start) => {
    if (seen.has(start)) return [];
    const part = new Set([start]);
    for (const x of part) for (const y of near.get(x) ?? []) part.add(y);
    for (const x of part) seen.add(x);
    return [part];
  });
  for (const [host, at] of hosts) parts.find((p) => p.has(at))?.add(host);
  return parts;
}

export const isSwitch = (design: Design, id: string) => design.switches.some((s) => s.id === id);
