/**
 * Pairs of switches that present themselves to others as one. No standard describes them; the model here: while the
 * peer link works, a pair is one bridge and one LACP system with the identity of its primary, the peer link lies
 * inside it and is never cut, and bundles with a shared number are one end.
 */
import { filterOf, hasBpduGuard, linkById, portById, switchById } from '../../design';
import type { Bundle, Design, Port, SwitchPair } from '../../design';
import { PAIR_PORT_OFFSET } from '../../standard';
import { portIsUp } from '../link-state';

export type PairState =
  /** Both work and hear each other: one switch to all others. */
  | 'one'
  /** One of the two is off; the other goes on. */
  | 'alone'
  /** The peer link is lost and the keepalive is not: the second takes its shared bundles down. */
  | 'primary-only'
  /** Both ways are lost: each takes itself for the one that is left. */
  | 'split'
  /** Both are off. */
  | 'off';

/** Whether a link between the two works. */
const works = (design: Design, id: string): boolean => {
  const link = linkById(design, id);
  return link !== undefined && 'port' in link.a && portIsUp(design, link.a.port);
};

/** How a pair stands as its switches, its peer links and its keepalive are. */
export function pairState(design: Design, pair: SwitchPair): PairState {
  const off = pair.switches.filter((id) => switchById(design, id)?.off).length;
  if (off > 0) return off === 2 ? 'off' : 'alone';
  if (pair.peer.some((id) => works(design, id))) return 'one';
  return pair.keepalive !== undefined && works(design, pair.keepalive) ? 'primary-only' : 'split';
}

/** Bundle of the other switch of a pair with the same shared number. */
export function sharedWith(design: Design, bundle: Bundle): Bundle | undefined {
  if (bundle.shared === undefined) return undefined;
  const pair = design.pairs.find((p) => p.switches.includes(bundle.switch));
  const other = pair?.switches.find((id) => id !== bundle.switch);
  return design.bundles.find((b) => b.switch === other && b.shared === bundle.shared);
}

/** What the switch of a port gives it as an edge port, said at the port itself: it goes to a switch that may give something else. */
function ownGuards(design: Design, p: Port | Bundle): Partial<Port> {
  if (!p.edge) return {};
  const filter = filterOf(design, p);
  return {
    bpduGuard: hasBpduGuard(design, p),
    bpduFilter: filter !== 'none',
    ...(filter === 'until-heard' ? { filterYields: true } : {}),
  };
}

/** Folds one pair that acts as one bridge: the ports of the second become the first's, and the peer links are gone. */
function asOne(design: Design, pair: SwitchPair): Design {
  const [first, second] = pair.switches;
  const moved = <T extends Port | Bundle>(p: T): T =>
    p.switch === second ? { ...p, ...ownGuards(design, p), switch: first, number: p.number + PAIR_PORT_OFFSET } : p;
  const peer = new Set(pair.peer);
  const bundles = design.bundles.flatMap((b) => {
    const other = sharedWith(design, b);
    if (!other) return [moved(b)];
    return b.switch === first ? [{ ...b, members: [...b.members, ...other.members] }] : [];
  });
  return {
    ...design,
    ports: design.ports.map(moved),
    bundles,
    links: design.links.filter((l) => !peer.has(l.id)),
  };
}

/** The second of a pair that has lost the peer link takes its shared bundles down, so that the primary carries alone. */
function secondSilent(design: Design, pair: SwitchPair): Design {
  const silent = new Set(
    design.bundles.flatMap((b) => (b.switch === pair.switches[1] && b.shared !== undefined ? b.members : [])),
  );
  return { ...design, ports: design.ports.map((p) => (silent.has(p.id) ? { ...p, down: true } : p)) };
}

const folded = new WeakMap<Design, Design>();

/** The design as all others see it: pairs that act as one are one switch. The same design when it has no such pair. */
export function actingDesign(design: Design): Design {
  if (design.pairs.length === 0) return design;
  let result = folded.get(design);
  if (!result) {
    const acting = design.pairs.reduce((now, pair) => {
      const state = pairState(design, pair);
      return state === 'one' ? asOne(now, pair) : state === 'primary-only' ? secondSilent(now, pair) : now;
    }, design);
    result = { ...acting, pairs: [] };
    folded.set(design, result);
  }
  return result;
}

/** Second switches of pairs that act as one, with the first that they act through. */
export const actingThrough = (design: Design): ReadonlyMap<string, string> =>
  new Map(
    design.pairs.flatMap((pair) =>
      pairState(design, pair) === 'one' ? [[pair.switches[1], pair.switches[0]] as const] : [],
    ),
  );

/** Whether a port is an end of a peer link of a pair that acts as one bridge: inside what others take for one switch. */
export function isPeerPort(design: Design, portId: string): boolean {
  const port = portById(design, portId);
  return design.pairs.some(
    (pair) =>
      port !== undefined &&
      pair.switches.includes(port.switch) &&
      pair.peer.some((id) => {
        const link = linkById(design, id);
        return link && [link.a, link.b].some((e) => 'port' in e && e.port === portId);
      }) &&
      pairState(design, pair) === 'one',
  );
}
