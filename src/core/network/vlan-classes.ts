/** VLANs whose trees and frames go alike in all designs of a script: one of them is run and looked at for all. */
import { actingDesign } from './bundles/pairs';
import { bundleAt, bundlesOf, linkAt, modeOf, portById, portsOf, segmentAt, vlansAt } from '../design';
import type { Bundle, Design, Port, Switch } from '../design';
import { isMixed, mixtureOf } from './mixed-modes';
import { mstConfigOf } from './regions/config';
import type { InstanceMap } from './regions/config';
import { vlanMembership } from '../standard';

/** Whether a port or bundle leads to a switch, so that its VLANs have trees there; hosts and free ports have none to tell apart. */
export function leadsToSwitch(design: Design, element: Port | Bundle): boolean {
  if ('members' in element) return element.members.some((id) => leadsToSwitch(design, portById(design, id)!));
  const link = linkAt(design, element.id);
  return link ? 'port' in link.a && 'port' in link.b : segmentAt(design, element.id) !== undefined;
}

const isCabled = (design: Design, element: Port | Bundle): boolean =>
  'members' in element || linkAt(design, element.id) !== undefined || segmentAt(design, element.id) !== undefined;

const elementsOf = (design: Design, s: Switch): (Port | Bundle)[] => [
  ...bundlesOf(design, s.id),
  ...portsOf(design, s.id).filter((p) => !bundleAt(design, p.id)),
];

const sets = (elements: readonly (Port | Bundle)[]): string[] => [...new Set(elements.map((e) => e.vlans ?? 'all'))];

/** What is set for single VLANs, as words by VLAN. */
function ownSettings(design: Design): ReadonlyMap<number, string> {
  const words = new Map<number, string>();
  const add = (what: string, table: Readonly<Record<string, number>> | undefined) => {
    for (const [vlan, value] of Object.entries(table ?? {}))
      words.set(Number(vlan), `${words.get(Number(vlan)) ?? ''};${what}=${value}`);
  };
  for (const s of design.switches) add(s.id, s.vlanPriority);
  for (const e of [...design.ports, ...design.bundles]) {
    if (!leadsToSwitch(design, e)) continue;
    add(`${e.id} cost`, e.vlanCost);
    add(`${e.id} priority`, e.vlanPriority);
  }
  return words;
}

/** Cables at whose ends another VLAN travels untagged, by each of the two VLANs. */
function untaggedOtherwise(design: Design): ReadonlyMap<number, string> {
  const words = new Map<number, string>();
  for (const { id, a, b } of design.links) {
    if (!('port' in a && 'port' in b)) continue;
    const natives = [a, b].map(({ port }) => vlansAt(design, port).native);
    if (natives[0] === natives[1]) continue;
    natives.forEach((vlan, end) => {
      if (vlan !== null) words.set(vlan, `${words.get(vlan) ?? ''};${id} ${end}`);
    });
  }
  return words;
}

/** What tells the VLANs of a design apart, as a function of the VLAN. */
function signatures(design: Design, watched: readonly string[]): (vlan: number) => string {
  const between = new Set(watched.map((id) => (bundleAt(design, id) ?? portById(design, id))?.vlans ?? 'all'));
  const maps = new Set<InstanceMap>();
  // By spelling, since many switches are alike: the sets on all ports of a switch, and on those that lead anywhere.
  const present = new Map<string, string[]>();
  for (const s of design.switches) {
    const elements = elementsOf(design, s);
    for (const set of sets(elements.filter((e) => leadsToSwitch(design, e)))) between.add(set);
    for (const some of [elements, elements.filter((e) => isCabled(design, e))]) {
      const own = sets(some);
      present.set(own.join('|'), own);
    }
    if (modeOf(design, s) === 'mstp') maps.add(mstConfigOf(design, s).map);
  }
  const carried = [...between].map(vlanMembership);
  const anywhere = [...present.values()].map((own) => own.map(vlanMembership));
  const mixture = mixtureOf(design);
  const { perVlan } = mixture;
  const settings = perVlan ? ownSettings(design) : new Map<number, string>();
  const untagged = perVlan ? untaggedOtherwise(design) : new Map<number, string>();
  const mixed = isMixed(mixture);
  return (vlan) =>
    [
      carried.map((set) => set[vlan]).join(''),
      anywhere.map((own) => (own.some((set) => set[vlan]) ? 1 : 0)).join(''),
      [...maps].map((map) => map[vlan]).join(),
      settings.get(vlan) ?? '',
      untagged.get(vlan) ?? '',
      // VLAN 1 has the tree of those who know one alone.
      mixed && vlan === 1 ? 'common' : '',
    ].join(' ');
}

/**
 * VLAN that stands for each VLAN: the first of those that the same cables carry, with the same settings, in all of the
 * designs. `watched`: ports of hosts at which something is plugged in, where VLANs are distinguished too.
 */
export function vlanClasses(designs: readonly Design[], watched: readonly string[]): ReadonlyMap<number, number> {
  const tell = designs.map((d) => signatures(actingDesign(d), watched));
  const first = new Map<string, number>();
  const found = new Map<number, number>();
  const numbers = new Set(designs.flatMap((d) => d.vlans.map((v) => v.number)));
  for (const vlan of [...numbers].sort((a, b) => a - b)) {
    const key = tell.map((of) => of(vlan)).join('\n');
    if (!first.has(key)) first.set(key, vlan);
    found.set(vlan, first.get(key)!);
  }
  return found;
}
