/**
 * Whole designs, drawn at random: every mode, alone and mixed, regions, shared LANs, loop-back cables, half duplex, guards and
 * filters, bundles, pairs, hosts, small maximum ages and hops, age steps, disabled parts, VLANs that differ.
 */
import fc from 'fast-check';
import type { Bundle, Design, Link, Mode, Region } from '@/core/design';
import { isPerVlan, modeOf } from '@/core/design';
import { guardedNetworks } from './guards';
import { networks } from './networks';

const REGIONS: Region[] = [
  { id: 'ra', name: 'alpha', revision: 1, map: { '1': '10' } },
  { id: 'rb', name: 'beta', revision: 1, map: { '1': '10,20' } },
];
const rarely = (of: number) => fc.nat(of - 1).map((n) => n === 0);

const perSwitch = fc.record({
  protocol: fc.constantFrom<Mode>('per-vlan-rstp', 'per-vlan-stp', 'rstp', 'stp', 'mstp', 'mstp'),
  region: fc.constantFrom('ra', 'ra', 'rb'),
  deep: rarely(12),
  ageStep: rarely(8),
});
const perPort = fc.record({ half: rarely(10), edge: rarely(6) });
const perBundle = fc.record({
  wanted: rarely(2),
  kind: fc.constantFrom<Bundle['kind']>('lacp', 'lacp', 'static', 'own'),
  passive: rarely(4),
  minActive: fc.constantFrom(undefined, undefined, 2),
  maxActive: fc.constantFrom(undefined, undefined, 1),
  minRate: fc.constantFrom(undefined, undefined, 1500),
  individual: fc.constantFrom(undefined, false),
  systemPriority: fc.constantFrom(undefined, undefined, 1),
  silenceGuard: rarely(5),
});

/** Links by the two switches that they join, where those are two. */
function parallels({ links, ports }: Design): [string, string, Link[]][] {
  const of = new Map(ports.map((p) => [p.id, p.switch]));
  const found = new Map<string, [string, string, Link[]]>();
  for (const link of links) {
    if (!('port' in link.a && 'port' in link.b)) continue;
    const [a, b] = [of.get(link.a.port)!, of.get(link.b.port)!];
    if (a === b) continue;
    const key = [a, b].sort().join(' ');
    const entry = found.get(key) ?? ([...[a, b].sort(), []] as unknown as [string, string, Link[]]);
    entry[2].push(link);
    found.set(key, entry);
  }
  return [...found.values()].filter(([, , all]) => all.length > 1);
}

type Settings = ReturnType<(typeof perBundle)['generate']>['value'];

/** One end of a bundle over parallel links. */
function endOf(design: Design, s: string, links: readonly Link[], number: number, of: Settings): Bundle {
  const own = new Set(design.ports.flatMap((p) => (p.switch === s ? [p.id] : [])));
  const members = links.map(({ a, b }) => ('port' in a && own.has(a.port) ? a.port : 'port' in b ? b.port : ''));
  const { minActive, maxActive, minRate, individual, systemPriority } = of;
  const rated = minRate !== undefined && members.length * 1000 >= minRate ? { minRate } : {};
  return {
    id: `${s}-b${number}`,
    switch: s,
    name: `b${number}`,
    number,
    members,
    kind: of.kind,
    ...(of.passive ? { activity: 'passive' as const } : {}),
    ...(minActive && !maxActive ? { minActive } : {}),
    ...(maxActive ? { maxActive } : {}),
    ...rated,
    ...(individual === undefined ? {} : { individual }),
    ...(systemPriority ? { systemPriority } : {}),
    ...(of.silenceGuard ? { silenceGuard: true } : {}),
  };
}

/** Parallel links bundled now and then, with the same kind at both ends. */
function bundled(design: Design, next: () => Settings): Design {
  const bundles = parallels(design).flatMap(([a, b, links], i) => {
    const [near, far] = [next(), next()];
    if (!near.wanted) return [];
    return [endOf(design, a, links, 200 + i, near), endOf(design, b, links, 200 + i, { ...far, kind: near.kind })];
  });
  return { ...design, bundles };
}

/** A port of its own at a switch, like another one. */
function portLike(design: Design, id: string, at?: string): Design['ports'][number] {
  const like = design.ports.find((p) => p.id === id)!;
  const s = at ?? like.switch;
  const number = Math.max(0, ...design.ports.flatMap((p) => (p.switch === s ? [p.number] : []))) + 1;
  return { ...like, id: `${s}.${number}`, switch: s, name: `${number}`, number };
}

/** A second cable beside some links. */
function doubled(design: Design, next: () => boolean): Design {
  return design.links.reduce((now, link) => {
    if (!next() || !('port' in link.a && 'port' in link.b)) return now;
    const a = portLike(now, link.a.port);
    const withA = { ...now, ports: [...now.ports, a] };
    const b = portLike(withA, link.b.port);
    const twin = { id: `${link.id}-2`, a: { port: a.id }, b: { port: b.id } };
    return { ...withA, ports: [...withA.ports, b], links: [...now.links, twin] };
  }, design);
}

/** A chain of seven more switches behind the first: deeper than a small maximum age goes. */
function tailed(design: Design): Design {
  return Array.from({ length: 7 }, (_, i) => i).reduce((now, i) => {
    const s = { ...now.switches[0]!, id: `t${i}`, name: `t${i}`, mac: `02:00:5e:00:53:0${i}`, priority: 32768 };
    const before = i === 0 ? now.switches[0]!.id : `t${i - 1}`;
    const plain = { switch: before, speed: 1000, cost: 4 };
    const up = { ...plain, id: `${before}.90`, name: '90', number: 90 };
    const down = { ...plain, id: `t${i}.91`, switch: `t${i}`, name: '91', number: 91 };
    const link = { id: `tail${i}`, a: { port: up.id }, b: { port: down.id } };
    return { ...now, switches: [...now.switches, s], ports: [...now.ports, up, down], links: [...now.links, link] };
  }, design);
}

/** What the solver leaves to the rehearsal: see docs/engine.md. */
function modelled(design: Design): Design {
  const mixed = new Set(design.switches.map((s) => isPerVlan(modeOf(design, s)))).size > 1;
  if (!mixed) return design;
  const perVlan = new Set(design.switches.flatMap((s) => (isPerVlan(modeOf(design, s)) ? [s.id] : [])));
  const ports = design.ports.map((p) => (perVlan.has(p.switch) ? { ...p, bpduGuard: false, loopGuard: false } : p));
  return { ...design, ports };
}

export const wholeNetworks: fc.Arbitrary<Design> = fc
  .tuple(
    guardedNetworks(networks),
    fc.constantFrom<Mode | 'mixed'>('per-vlan-rstp', 'per-vlan-stp', 'rstp', 'stp', 'mstp', 'mixed', 'mixed'),
    fc.infiniteStream(perSwitch),
    fc.infiniteStream(perPort),
    fc.infiniteStream(perBundle),
    rarely(4),
    fc.infiniteStream(rarely(4)),
  )
  .map(([network, mode, switches, ports, bundles, wanted, twice]) => {
    // Classic bridges do not come to rest beyond the maximum age, nor do shared segments at the limit.
    const shallow = wanted && ['per-vlan-rstp', 'rstp', 'mstp'].includes(mode);
    const design: Design = {
      ...network,
      mode: mode === 'mixed' ? 'rstp' : mode,
      vlans: [{ id: 'v1', number: 1 }, ...network.vlans],
      regions: shallow ? REGIONS.map((r) => ({ ...r, maxHops: 6 })) : REGIONS,
      segments: shallow ? [] : network.segments,
      switches: network.switches.map((s) => {
        const { protocol, region, deep, ageStep } = switches.next().value;
        return {
          ...s,
          ...(mode === 'mixed' ? { protocol } : {}),
          region,
          ...(deep ? { vlanInstance: { '20': 1 } } : {}),
          ...(shallow ? { helloTime: 1, maxAge: 6, forwardDelay: 4 } : {}),
          ...(ageStep ? { ageStep: 'fraction' as const } : {}),
        };
      }),
      ports: network.ports.map((p) => {
        const { half, edge } = ports.next().value;
        return { ...p, ...(half ? { duplex: 'half' as const } : {}), ...(edge ? { edge: true } : {}) };
      }),
    };
    const cabled = doubled(shallow ? tailed(design) : design, () => twice.next().value);
    return modelled(bundled(cabled, () => bundles.next().value));
  });
