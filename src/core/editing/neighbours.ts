/** What switches say of their neighbours, against the drawing. */
import { tableMessages as say } from '../messages';
import { endOwner, farEnd, linkAt, linkById, portById, portsOf, segmentAt, setField, addElement } from '../design';
import type { Design, Edit, Link, Port, Switch } from '../design';
import { canonicalMac } from '../standard';
import { Macs } from './names';
import { Wiring } from './wiring';
import type { NewId } from './wiring';

/** One thing heard: on a port of a switch, a port of another. */
export interface Reception {
  /** Name of the switch that tells. */
  readonly from: string;
  readonly fromPort: string;
  /** System name of the neighbour; its chassis identifier where it sends no name. */
  readonly to: string;
  readonly toPort: string;
  /** Chassis MAC address of the neighbour, when it sent one. */
  readonly toMac?: string;
  /** Whether the neighbour says that it is a bridge. */
  readonly toBridge?: boolean;
}

export interface End {
  readonly name: string;
  readonly port: string;
}

export type Verdict = 'as drawn' | 'other port' | 'unexpected' | 'missing';

/** One cable, as heard or as drawn. */
export interface Finding {
  readonly key: string;
  readonly verdict: Verdict;
  /** The ends as the switches report them; of a missing cable, as drawn. */
  readonly a: End;
  readonly b: End;
  /** The link drawn for it, or that lies where this one was heard. */
  readonly link: string | null;
  readonly sentence: string;
}

const text = ({ name, port }: End) => `${name} ${port}`;
const keyOf = (a: End, b: End) => [text(a), text(b)].sort().join(' – ');

/** A switch of the design by what a neighbour calls it: its name, its name before the first dot, or its MAC address. */
export function switchCalled(design: Design, name: string, mac?: string): Switch | undefined {
  const lower = name.toLowerCase();
  const short = lower.split('.')[0]!;
  const address = canonicalMac(mac ?? name);
  return (
    design.switches.find((s) => s.name.toLowerCase() === lower) ??
    design.switches.find((s) => s.name.toLowerCase().split('.')[0] === short) ??
    (address ? design.switches.find((s) => s.mac === address) : undefined)
  );
}

const portCalled = (design: Design, at: Switch | undefined, name: string): Port | undefined =>
  at ? portsOf(design, at.id).find((p) => p.name.toLowerCase() === name.toLowerCase()) : undefined;

interface Cable {
  readonly a: End;
  readonly b: End;
  readonly sides: Set<string>;
  readonly mac: Map<string, string>;
}

/** The cables that receptions tell of; one heard from both sides counts once. */
function cablesHeard(design: Design, receptions: readonly Reception[]): Map<string, Cable> {
  const cables = new Map<string, Cable>();
  for (const hearing of receptions) {
    const from = switchCalled(design, hearing.from)?.name ?? hearing.from;
    const to = switchCalled(design, hearing.to, hearing.toMac)?.name ?? hearing.to;
    const [a, b] = [
      { name: from, port: hearing.fromPort },
      { name: to, port: hearing.toPort },
    ];
    const key = keyOf(a, b);
    const known = cables.get(key) ?? { a, b, sides: new Set<string>(), mac: new Map<string, string>() };
    known.sides.add(from);
    if (hearing.toMac) known.mac.set(to, hearing.toMac);
    cables.set(key, known);
  }
  return cables;
}

function drawnEnds(design: Design, link: Link): [End, End] | null {
  const ends = [link.a, link.b].map((end): End | null =>
    'port' in end ? { name: endOwner(design, end)!.name, port: portById(design, end.port)!.name } : null,
  );
  return ends[0] && ends[1] ? [ends[0], ends[1]] : null;
}

/** Whether two switches hear each other because both have a port on one shared segment. */
function onOneSegment(design: Design, p: Port | undefined, q: Port | undefined): boolean {
  const segment = p && segmentAt(design, p.id);
  return segment !== undefined && q !== undefined && segmentAt(design, q.id) === segment;
}

/** Who told of a cable that is as drawn, and who should have but did not. */
function drawnSentence({ a, b, sides }: Cable, telling: ReadonlySet<string>): string {
  const silent = [a, b].find((e) => telling.has(e.name) && !sides.has(e.name));
  if (silent) return say['received-at-one-end']({ silent: silent.name, from: text(silent === a ? b : a) });
  if (sides.has(a.name) && sides.has(b.name)) return say['both-report']();
  return say['one-reports']({ name: sides.has(a.name) ? a.name : b.name });
}

/** Compares cable by cable. Hosts are left out: few of them tell. */
export function checkNeighbours(design: Design, receptions: readonly Reception[]): Finding[] {
  const findings: Finding[] = [];
  const heard = cablesHeard(design, receptions);
  const telling = new Set(receptions.map((h) => switchCalled(design, h.from)?.name ?? h.from));
  const explained = new Set<string>();
  const open: Cable[] = [];
  const finding = (verdict: Verdict, a: End, b: End, link: Link | null, sentence: string) =>
    findings.push({ key: `${verdict} ${keyOf(a, b)}`, verdict, a, b, link: link?.id ?? null, sentence });

  for (const cable of heard.values()) {
    const { a, b } = cable;
    const [p, q] = [a, b].map(({ name, port }) => portCalled(design, switchCalled(design, name), port));
    const link = p && linkAt(design, p.id);
    const far = link && farEnd(link, p.id);
    if (link && far && 'port' in far && far.port === q?.id) {
      explained.add(link.id);
      finding('as drawn', a, b, link, drawnSentence(cable, telling));
    } else if (onOneSegment(design, p, q)) {
      finding('as drawn', a, b, null, say['on-segment']({ segment: segmentAt(design, p!.id)!.name }));
    } else open.push(cable);
  }
  for (const { a, b } of open) {
    const drawn = drawnInstead(design, a, b, explained);
    if (drawn) {
      explained.add(drawn.link.id);
      const [x, y] = drawn.ends;
      finding('other port', a, b, drawn.link, say['drawn-otherwise']({ a: text(x), b: text(y) }));
    } else finding('unexpected', a, b, null, say['not-drawn']());
  }
  for (const link of design.links) {
    const ends = drawnEnds(design, link);
    if (!ends || explained.has(link.id)) continue;
    const silent = ends.filter((e) => telling.has(e.name));
    if (silent.length > 0)
      finding('missing', ends[0], ends[1], link, say['not-received']({ names: silent.map((e) => e.name) }));
  }
  const order: Verdict[] = ['missing', 'other port', 'unexpected', 'as drawn'];
  return findings.sort(
    (x, y) =>
      order.indexOf(x.verdict) - order.indexOf(y.verdict) || x.key.localeCompare(y.key, 'en', { numeric: true }),
  );
}

/** A drawn cable between the same two switches that shares one end with what was heard, or is the only one left. */
function drawnInstead(
  design: Design,
  a: End,
  b: End,
  explained: ReadonlySet<string>,
): { link: Link; ends: [End, End] } | null {
  const pairs = design.links.flatMap((link) => {
    const ends = explained.has(link.id) ? null : drawnEnds(design, link);
    if (!ends) return [];
    const turned: [End, End] = [ends[1], ends[0]];
    return [ends, turned].filter(([x, y]) => x.name === a.name && y.name === b.name).map((e) => ({ link, ends: e }));
  });
  const sharing = pairs.find(({ ends: [x, y] }) => x.port === a.port || y.port === b.port);
  return sharing ?? pairs[0] ?? null;
}

/** Edits that make the drawing as it was heard. Empty for what is as drawn. */
export function acceptFinding(
  design: Design,
  finding: Finding,
  receptions: readonly Reception[],
  newId: NewId,
): Edit[] {
  const link = finding.link === null ? undefined : linkById(design, finding.link);
  switch (finding.verdict) {
    case 'as drawn':
      return [];
    case 'missing':
      return link ? [{ type: 'remove', kind: 'link', id: link.id }] : [];
    case 'other port':
      return link ? replugged(design, link, finding, newId) : [];
    case 'unexpected':
      return newCable(design, finding, receptions, newId);
  }
}

/** A port of that name, made when it is not there; what is plugged in there now is pulled out first. */
function seat(wiring: Wiring, at: string, name: string, speed: number, keep: string | null, pulled: Edit[]): string {
  const id = wiring.named(at, name);
  if (id === undefined || !portById(wiring.design, id)) return wiring.newPort(at, { speed, name });
  const there = linkAt(wiring.design, id);
  if (there && there.id !== keep) pulled.push({ type: 'remove', kind: 'link', id: there.id });
  return id;
}

function replugged(design: Design, link: Link, { a, b }: Finding, newId: NewId): Edit[] {
  const wiring = new Wiring(design, newId);
  const pulled: Edit[] = [];
  const first = endOwner(design, link.a);
  const [own, far] = first?.name === a.name ? [a, b] : [b, a];
  const set = (['a', 'b'] as const).flatMap((side) => {
    const end = link[side];
    const wanted = side === 'a' ? own : far;
    const port = 'port' in end ? portById(design, end.port)! : undefined;
    if (!port || port.name.toLowerCase() === wanted.port.toLowerCase()) return [];
    return [
      setField('link', link.id, side, { port: seat(wiring, port.switch, wanted.port, port.speed, link.id, pulled) }),
    ];
  });
  return [...pulled, ...wiring.edits, ...set];
}

function newCable(design: Design, { a, b }: Finding, receptions: readonly Reception[], newId: NewId): Edit[] {
  const wiring = new Wiring(design, newId);
  const macs = new Macs(design);
  const pulled: Edit[] = [];
  const speed = design.ports[0]?.speed ?? 1000;
  const ends = [a, b].map((end, i) => {
    const known = switchCalled(design, end.name);
    if (known) return { port: seat(wiring, known.id, end.port, speed, null, pulled) };
    const told = receptions.find((h) => h.to === end.name)?.toMac;
    const mac = told ? canonicalMac(told) : null;
    const free = mac !== null && !design.switches.some((s) => s.mac === mac);
    const beside = switchCalled(design, [a, b][1 - i]!.name);
    const id = newId('s');
    const place = beside?.x === undefined ? {} : { x: beside.x + 60, y: (beside.y ?? 0) + 160 };
    wiring.edits.push(addElement('switch', { id, name: end.name, mac: free ? mac : macs.next(), ...place }));
    return { port: wiring.newPort(id, { speed, name: end.port }) };
  });
  wiring.link(ends[0]!, ends[1]!);
  return [...pulled, ...wiring.edits];
}
