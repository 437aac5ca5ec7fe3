/**
 * What is plugged into what. Three kinds of evidence, from sure to inferred: what neighbours say of themselves (LLDP), whom
 * a member negotiates with (LACP), and who is designated on a port's LAN (BPDUs).
 */
import { macToNumber } from '../../standard';
import type { Certainty, ObservedEnd, ObservedNetwork, ObservedQuestion } from '../../design';
import { observeMessages as say } from '../../messages';
import type { ObservedNeighbour } from '../model';
import { shortName } from './devices';
import type { Merged } from './merge';

export interface Cables extends Pick<ObservedNetwork, 'links' | 'segments'> {
  /** Devices that only their neighbours tell of. */
  readonly strangers: ReadonlyMap<string, { readonly mac: string | null; readonly ports: ReadonlySet<string> }>;
}

const SEPARATOR = '\n';
const keyOf = ({ switch: s, port }: ObservedEnd): string => `${s}${SEPARATOR}${port.toLowerCase()}`;

/** Finds devices and ports as others call them. */
class Directory {
  private readonly byAddress = new Map<string, Merged>();
  private readonly byName = new Map<string, Merged>();
  private readonly bySystem = new Map<string, Merged>();
  readonly strangers = new Map<string, { mac: string | null; ports: Set<string> }>();

  constructor(readonly all: readonly Merged[]) {
    for (const m of all) {
      for (const address of m.device.addresses) this.byAddress.set(address, m);
      for (const o of m.device.of)
        if (o.name !== null && !this.byName.has(shortName(o.name))) this.byName.set(shortName(o.name), m);
      for (const a of m.aggregates) if (a.system) this.bySystem.set(a.system, m);
    }
  }

  ofAddress(mac: string | null): Merged | undefined {
    return mac === null ? undefined : this.byAddress.get(mac);
  }

  ofSystem(system: string): Merged | undefined {
    return this.bySystem.get(system) ?? this.byAddress.get(system);
  }

  /** The far end of what a port hears; null for an end device. */
  farEnd(n: ObservedNeighbour): ObservedEnd | null {
    const found =
      this.ofAddress(n.mac) ??
      this.ofAddress(n.farMac) ??
      (n.name === null ? undefined : this.byName.get(shortName(n.name)));
    if (found) {
      const byMac = n.farMac && [...found.ports.values()].find((p) => p.mac === n.farMac)?.name;
      const candidates = [n.farPort, n.farDescription].flatMap((p) => (p === null ? [] : [found.portName(p)]));
      const there = candidates.find((p) => found.ports.has(p.toLowerCase()));
      return { switch: found.device.name, port: byMac ?? there ?? candidates[0] ?? n.farMac ?? '?' };
    }
    if (n.bridge === false) return null;
    const name = n.name ?? n.mac;
    if (name === null) return null;
    const port = n.farPort ?? n.farDescription ?? n.farMac ?? '?';
    const stranger = this.strangers.get(name) ?? { mac: n.mac, ports: new Set<string>() };
    stranger.ports.add(port);
    this.strangers.set(name, stranger);
    return { switch: name, port };
  }
}

/** LANs in the making: ports that are known to be on one. */
class Lans {
  readonly next = new Map<string, Set<string>>();
  readonly ends = new Map<string, ObservedEnd>();

  join(a: ObservedEnd, b: ObservedEnd): void {
    const [x, y] = [keyOf(a), keyOf(b)];
    if (x === y) return;
    for (const [key, end, other] of [
      [x, a, y],
      [y, b, x],
    ] as const) {
      this.ends.set(key, this.ends.get(key) ?? end);
      this.next.set(key, (this.next.get(key) ?? new Set()).add(other));
    }
  }

  has(end: ObservedEnd): boolean {
    return this.next.has(keyOf(end));
  }

  /** The ports of each LAN. */
  *all(): Generator<ObservedEnd[]> {
    const seen = new Set<string>();
    for (const start of this.next.keys()) {
      if (seen.has(start)) continue;
      const lan = [start];
      seen.add(start);
      for (const key of lan)
        for (const other of this.next.get(key)!)
          if (!seen.has(other)) {
            seen.add(other);
            lan.push(other);
          }
      yield lan.map((key) => this.ends.get(key)!);
    }
  }
}

const heardBy = (m: Merged, by: Certainty): ObservedNeighbour[] =>
  m.device.of.flatMap((o) => o.neighbours.filter((n) => n.by === by)).map((n) => ({ ...n, port: m.portName(n.port) }));

function byNeighbours(directory: Directory, lans: Lans, by: Certainty, known: (end: ObservedEnd) => boolean): void {
  for (const m of directory.all)
    for (const n of heardBy(m, by)) {
      const here = { switch: m.device.name, port: n.port };
      const far = directory.farEnd(n);
      if (far && !known(here) && !known(far)) lans.join(here, far);
    }
}

/** Members and the far members that they negotiate with, by the number that each has as an aggregation port. */
function byLacp(directory: Directory, lans: Lans, known: (end: ObservedEnd) => boolean): void {
  for (const m of directory.all)
    for (const member of m.aggregates.flatMap((a) => a.members)) {
      const far = member.partner && directory.ofSystem(member.partner.system);
      if (!far || far === m || known({ switch: m.device.name, port: member.port })) continue;
      const port =
        far.aggregates.flatMap((a) => a.members).find((x) => x.number === member.partner!.port)?.port ??
        far.portName(`#${member.partner.port}`);
      if (!known({ switch: far.device.name, port }))
        lans.join({ switch: m.device.name, port: member.port }, { switch: far.device.name, port });
    }
}

/** Pairs members of two bundles in the order of their names, where nothing tells which is plugged into which. */
function pairMembers(lans: Lans, m: Merged, near: string, far: Merged, farPort: string): boolean {
  const [mine, theirs] = [m.aggregates.find((a) => a.name === near), far.aggregates.find((a) => a.name === farPort)];
  if (!mine || !theirs) return false;
  const order = (a: typeof mine) =>
    a.members.map((x) => x.port).sort((p, q) => p.localeCompare(q, 'en', { numeric: true }));
  const [own, other] = [order(mine), order(theirs)];
  own.forEach((port, i) => {
    const across = other[i];
    if (across !== undefined) lans.join({ switch: m.device.name, port }, { switch: far.device.name, port: across });
  });
  return true;
}

/** Ports that are not designated know who is: the bridge, and the number of its port. */
function byBpdus(directory: Directory, lans: Lans, known: (end: ObservedEnd) => boolean): void {
  const isKnown = (m: Merged, port: string): boolean =>
    known({ switch: m.device.name, port }) ||
    (m.aggregates.find((a) => a.name === port)?.members ?? []).some((x) =>
      known({ switch: m.device.name, port: x.port }),
    );
  const byNumber = new Map(
    directory.all.flatMap((m) => (m.device.mac ? [[macToNumber(m.device.mac), m] as const] : [])),
  );
  for (const m of directory.all)
    for (const p of m.trees.flatMap((t) => t.ports)) {
      const far = p.designated && byNumber.get(p.designated.bridge.mac);
      if (!far || p.role === 'designated' || p.state === 'disabled') continue;
      const port = far.portName(`#${p.designated.port & 0xfff}`);
      if ((far === m && port === p.port) || isKnown(m, p.port)) continue;
      // A designated port that is known to lead elsewhere is on a shared LAN, or what is known of it is old.
      if (isKnown(far, port)) continue;
      if (!pairMembers(lans, m, p.port, far, port))
        lans.join({ switch: m.device.name, port: p.port }, { switch: far.device.name, port });
    }
}

/** Marks links of which one end reports the other and is not reported by it, though that one reports neighbours too (802.1AB). */
function oneWay(all: readonly Merged[], directory: Directory, links: ObservedNetwork['links']): ObservedQuestion[] {
  const heard = new Set<string>();
  const telling = new Set<string>();
  for (const m of all)
    for (const n of heardBy(m, 'lldp')) {
      telling.add(m.device.name);
      const far = directory.farEnd(n);
      if (far) heard.add(`${keyOf({ switch: m.device.name, port: n.port })}${SEPARATOR}${keyOf(far)}`);
    }
  return links.flatMap((link) => {
    const { a, b, certainty } = link;
    if (certainty !== 'lldp' || !telling.has(a.switch) || !telling.has(b.switch)) return [];
    return [[a, b] as const, [b, a] as const].flatMap(([near, far]): ObservedQuestion[] => {
      if (heard.has(`${keyOf(near)}${SEPARATOR}${keyOf(far)}`)) return [];
      link.silent = near.switch;
      const text = say['one-way']({ near: `${near.switch} ${near.port}`, far: `${far.switch} ${far.port}` });
      return [{ kind: 'deviates', switch: near.switch, port: near.port, text }];
    });
  });
}

const order = (a: ObservedEnd, b: ObservedEnd): number =>
  a.switch.localeCompare(b.switch, 'en', { numeric: true }) || a.port.localeCompare(b.port, 'en', { numeric: true });

/** Links and shared segments, with how sure each is. */
export function cablesOf(all: readonly Merged[], questions: ObservedQuestion[]): Cables {
  const directory = new Directory(all);
  const links: ObservedNetwork['links'] = [];
  const segments: ObservedNetwork['segments'] = [];
  const taken = new Set<string>();
  const known = (end: ObservedEnd) => taken.has(keyOf(end));
  const settle = (lans: Lans, certainty: Certainty) => {
    for (const lan of lans.all()) {
      lan.sort(order).forEach((end) => taken.add(keyOf(end)));
      if (lan.length === 2) links.push({ a: lan[0]!, b: lan[1]!, certainty });
      else {
        segments.push({ ports: lan, certainty });
        const [at] = lan as [ObservedEnd];
        questions.push({
          kind: 'inferred',
          switch: at.switch,
          port: at.port,
          text: say['several-heard']({ ends: lan.map((e) => `${e.switch} ${e.port}`) }),
        });
      }
    }
  };
  const gather = (certainty: Certainty, into: (lans: Lans) => void) => {
    const lans = new Lans();
    into(lans);
    settle(lans, certainty);
  };
  gather('lldp', (lans) => byNeighbours(directory, lans, 'lldp', () => false));
  gather('lacp', (lans) => {
    byNeighbours(directory, lans, 'lacp', known);
    byLacp(directory, lans, known);
  });
  gather('bpdu', (lans) => {
    byNeighbours(directory, lans, 'bpdu', known);
    byBpdus(directory, lans, known);
  });
  for (const certainty of ['lacp', 'bpdu'] as const) {
    const inferred = links.filter((l) => l.certainty === certainty);
    const [first] = inferred;
    if (!first) continue;
    const words = inferred.map(({ a, b }) => `${a.switch} ${a.port} – ${b.switch} ${b.port}`);
    questions.push({
      kind: 'inferred',
      switch: first.a.switch,
      port: first.a.port,
      text: say['inferred-links']({ links: words, certainty }),
    });
  }
  questions.push(...oneWay(all, directory, links));
  links.sort((x, y) => order(x.a, y.a) || order(x.b, y.b));
  return { links, segments, strangers: directory.strangers };
}
