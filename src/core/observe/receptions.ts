/** Lists of neighbours alone, and what a whole reading says of neighbours: the check of cables is a part of every reading. */
import type { ObservedNetwork } from '../design';
import type { Reception } from '../editing';
import { canonicalMac } from '../standard';
import { nothingOf } from './model';
import type { Observation, ObservedNeighbour, ObservedPort, Source } from './model';
import { unite } from './unite/unite';

const neighbourOf = (r: Reception): ObservedNeighbour => ({
  port: r.fromPort,
  by: 'lldp',
  name: canonicalMac(r.to) === null ? r.to : null,
  mac: canonicalMac(r.toMac ?? r.to),
  farPort: canonicalMac(r.toPort) === null ? r.toPort : null,
  farMac: canonicalMac(r.toPort),
  farDescription: null,
  bridge: r.toBridge ?? null,
  management: [],
});

/** What one device tells of its neighbours and nothing else; every port that it names is there. */
export function neighbourList(
  source: Source,
  name: string | null,
  neighbours: readonly ObservedNeighbour[],
): Observation {
  const ports = [...new Set(neighbours.map((n) => n.port))].map((port): ObservedPort => ({ name: port }));
  return { ...nothingOf(source), name, ports, neighbours };
}

/** Receptions as observations, one for each switch that tells. */
export function observationsOf(receptions: readonly Reception[], source: Source): Observation[] {
  const telling = new Map<string, Reception[]>();
  for (const r of receptions) telling.set(r.from, [...(telling.get(r.from) ?? []), r]);
  return [...telling].map(([name, list]) => neighbourList(source, name, list.map(neighbourOf)));
}

/** What switches that report neighbours report, link by link. */
export function receptionsOf({ switches, links, segments }: ObservedNetwork): Reception[] {
  const by = new Map(switches.map((s) => [s.name, s]));
  const pairs = [
    ...links.filter((l) => l.certainty === 'lldp'),
    ...segments
      .filter((s) => s.certainty === 'lldp')
      .flatMap(({ ports: [a, ...rest] }) => rest.map((b) => ({ a: a!, b, silent: undefined }))),
  ];
  return pairs.flatMap(({ a, b, silent }) =>
    [[a, b] as const, [b, a] as const].flatMap(([near, far]): Reception[] => {
      const own = by.get(near.switch);
      if (!own?.hears || silent === near.switch) return [];
      const there = by.get(far.switch);
      return [
        {
          from: near.switch,
          fromPort: near.port,
          to: far.switch,
          toPort: far.port,
          ...(there?.mac ? { toMac: there.mac } : {}),
        },
      ];
    }),
  );
}

/** A reading with newer lists of neighbours: a switch that tells again is believed again, and what else was read stays. */
export function withReceptions(
  before: ObservedNetwork | null,
  receptions: readonly Reception[],
  source: Source,
): ObservedNetwork {
  const telling = new Set(receptions.map((r) => r.from));
  const kept = before ? receptionsOf(before).filter((r) => !telling.has(r.from)) : [];
  const cables = unite(observationsOf([...kept, ...receptions], source));
  if (!before || (before.trees.length === 0 && before.bundles.length === 0)) return cables;
  const heard = new Set(cables.switches.filter((s) => s.hears).map((s) => s.name));
  const known = new Set(before.switches.map((s) => s.name));
  const ends = new Set(cables.links.flatMap(({ a, b }) => [`${a.switch}\n${a.port}`, `${b.switch}\n${b.port}`]));
  const isOpen = (e: { switch: string; port: string }) => !ends.has(`${e.switch}\n${e.port}`);
  return {
    ...before,
    switches: [
      ...before.switches.map((s) => (heard.has(s.name) ? { ...s, hears: true } : s)),
      ...cables.switches.filter((s) => !known.has(s.name)),
    ],
    links: [...before.links.filter((l) => l.certainty !== 'lldp' && isOpen(l.a) && isOpen(l.b)), ...cables.links],
    segments: [...before.segments.filter((s) => s.certainty !== 'lldp' && s.ports.every(isOpen)), ...cables.segments],
    questions: [...before.questions, ...cables.questions.filter((q) => q.kind === 'deviates')],
  };
}
