/**
 * The chart of one tree as plain values: plates, pegs, wires, hosts. Built from a solved design, drawn by components,
 * measured by tests.
 */
import { priorityInForce } from '../../core/design';
import { heldIn, isMacOnlyRoot, nextRoot, roleAt, rootsOf } from '../../core/trees';
import type { Role, SolvedDesign, SolvedTree } from '../../core/trees';
import type { Arranged } from './arrange';
import { attachPegs } from './pegs';
import type { Attachment } from './pegs';
import { placeSpots, wireEnds } from './ends';
import type { Ends, WireEnd } from './ends';
import { regionsOf } from './regions';
import type { Regions } from './regions';
import type { Point } from './geometry';
import type { PlateItem, Standing, PegItem, WireState, WireItem, Scene } from './scene-items';

/** What the roles at its ends make of a wire. An end that is null is a host or a segment. */
function wireState(a: Role | null, b: Role | null): { state: WireState; blockedA: boolean; blockedB: boolean } {
  const blocked = (role: Role | null) => role === 'alternate' || role === 'backup';
  if (a === 'disabled' || b === 'disabled') return { state: 'down', blockedA: false, blockedB: false };
  if (a === 'none' && (b === 'none' || b === null)) return { state: 'outside', blockedA: false, blockedB: false };
  if (b === 'none' && a === null) return { state: 'outside', blockedA: false, blockedB: false };
  if (a === 'none' || b === 'none') return { state: 'half', blockedA: a === 'none', blockedB: b === 'none' };
  return { state: blocked(a) || blocked(b) ? 'blocked' : 'open', blockedA: blocked(a), blockedB: blocked(b) };
}

/** What a switch is in a tree, in words. */
const STANDING_WORD: Record<Standing, string> = {
  root: 'root',
  'mac-only-root': 'root by MAC address only',
  next: 'next',
  plain: '',
  outside: 'not in this tree',
  off: 'off',
  apart: '',
};

function standings(solved: SolvedDesign, of: SolvedTree): Standing[] {
  const { design, actsAs } = solved.topology;
  const standing = design.switches.map((s, b): Standing =>
    s.off ? 'off' : of.outcome.root[actsAs[b]!]! < 0 ? 'outside' : 'plain',
  );
  for (const root of rootsOf(of)) {
    standing[root] = isMacOnlyRoot(solved, of, root) ? 'mac-only-root' : 'root';
    const next = nextRoot(solved, of, root);
    if (next >= 0) standing[next] = 'next';
  }
  actsAs.forEach((acts, b) => (standing[b] = standing[acts]!));
  return standing;
}

function boundaryAt(regions: Regions, port: number): Pick<PegItem, 'boundary'> {
  const boundary = regions.boundary(port);
  return boundary === 0 ? {} : { boundary };
}

function regionAt(regions: Regions, bridge: number): Pick<PlateItem, 'region'> {
  const region = regions.of(bridge);
  return region ? { region } : {};
}

/** The scene of a tree in an arrangement. */
export function buildScene(solved: SolvedDesign, of: SolvedTree, arranged: Arranged): Scene {
  const { topology } = solved;
  const { design } = topology;
  const spots = placeSpots(topology, arranged, arranged.ruler.length === 0);
  const ends = wireEnds(topology, new Map(spots.map((s, i) => [s.id, i])));
  const bridgeOf = (end: WireEnd) => ('port' in end ? end.home : null);
  const place = (end: WireEnd): Point => ('port' in end ? arranged.at[end.home]! : spots[end.spot]!);
  const attachments = ends.map(({ a, b }): Attachment => ({
    a: { bridge: bridgeOf(a), port: 'port' in a ? a.port : -1, at: place(a) },
    b: { bridge: bridgeOf(b), port: 'port' in b ? b.port : -1, at: place(b) },
  }));
  const { anchors, width, crowded } = attachPegs(arranged.at, attachments);
  const roleOf = (end: WireEnd) => ('port' in end ? roleAt(of, end.port) : null);

  const held = new Set(heldIn(topology, of.tree.vlan));
  const isHeld = ({ a, b }: Ends) => [a, b].some((end) => 'port' in end && held.has(end.port));
  const regions = regionsOf(solved);
  const pegs: PegItem[] = [];
  // A bundle to a pair of switches has a peg on each wire.
  const pegged = new Map<string, number>();
  const wires = ends.map((end, i): WireItem => {
    const [a, b] = anchors[i]!;
    for (const [side, anchor] of [
      [end.a, a],
      [end.b, b],
    ] as const)
      if ('port' in side) {
        const { id } = topology.ports[side.port]!.element;
        const seen = pegged.get(id) ?? 0;
        pegged.set(id, seen + 1);
        pegs.push({
          key: seen === 0 ? id : `${id} ${seen}`,
          x: anchor.x,
          y: anchor.y,
          nx: anchor.nx,
          ny: anchor.ny,
          id,
          role: end.peer ? 'port' : roleAt(of, side.port),
          ...boundaryAt(regions, side.port),
          crowded: crowded[side.home]!,
        });
      }
    const [portA, portB] = [end.a, end.b].map((e) => ('port' in e ? topology.ports[e.port]!.element.id : null));
    const { state, blockedA, blockedB } = end.peer
      ? { state: 'open' as const, blockedA: false, blockedB: false }
      : wireState(roleOf(end.a), roleOf(end.b));
    const leg = 'port' in end.a && 'port' in end.b && pegged.get(portA!)! > 1 ? ` ${portB}` : '';
    return {
      key: `${end.kind} ${portA ?? portB}${leg}`,
      id: end.id,
      portA: portA ?? null,
      portB: portB ?? null,
      kind: end.kind,
      a,
      b,
      label: end.unseen ? 'one end only' : isHeld(end) ? 'inconsistent' : end.label,
      ...(end.unseen ? { alarm: true, unseen: true } : isHeld(end) ? { alarm: true } : {}),
      state,
      blockedA,
      blockedB,
    };
  });
  const standing = standings(solved, of);
  const plates = design.switches.map((s, i): PlateItem => {
    const priority = String(priorityInForce(design, s, of.tree).value);
    const word = STANDING_WORD[standing[i]!];
    return {
      id: s.id,
      name: s.name,
      ...arranged.at[i]!,
      width: width[i]!,
      note: priority,
      tag: standing[i] === 'mac-only-root' ? 'root' : standing[i] === 'outside' ? 'not in tree' : word,
      spoken: [s.name, word, `priority ${priority}`].filter(Boolean).join(', '),
      standing: standing[i]!,
      ...regionAt(regions, i),
    };
  });
  return { plates, pegs, wires, spots, ruler: arranged.ruler, outside: arranged.outside };
}
