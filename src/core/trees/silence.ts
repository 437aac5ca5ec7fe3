/**
 * Silence guards: a port that has one speaks in every role, and is held back while it hears nothing. At rest only
 * designated ports speak otherwise, so that one opposite a root port without the guard is held: designated, and discarding.
 */
import { hasSilenceGuard } from '../design';
import { peersOf } from '../network';
import { ROLE } from './outcome';
import type { CistOutcome, TreeOutcome } from './outcome';
import { isClassic } from './reach';
import { portsThat } from './set-ports';
import type { Topology } from './topology';

/** Which ports take part in a process, and which of them speak at rest where a certain other port hears it. */
export interface Speakers {
  readonly takesPart: Uint8Array;
  readonly speaks: (port: number, to: number) => boolean;
}

/** Ports that are given a silence guard. */
const given = portsThat((e) => e.silenceGuard === true);

/** Ports with a silence guard that acts. */
const guardedPorts = ({ design, ports }: Topology): readonly number[] =>
  given(ports).filter((p) => hasSilenceGuard(design, ports[p]!.element));

const isDesignated = (role: number | undefined): boolean => role === ROLE.designated || role === ROLE.disputed;

/** Who speaks in the process of a tree that has a process to itself. */
export const speakersOf = (takesPart: Uint8Array, { role }: TreeOutcome): Speakers => ({
  takesPart,
  speaks: (port) => isDesignated(role[port]),
});

/**
 * Who speaks in the one process of each switch without trees per VLAN: a port that is designated in the CIST, or in an
 * instance while it is master in none; and one that answers a proposal which an instance makes without end, since agreements
 * count only between bridges with the same CIST root, external cost and regional root (802.1Q-2018 clause 13.29.12).
 */
export function speakersOfMany(
  { portBridge }: Topology,
  takesPart: Uint8Array,
  outcome: CistOutcome,
  instances: readonly TreeOutcome[],
): Speakers {
  const { role, root, cist } = outcome;
  const sameWay = (a: number, b: number) =>
    root[a] === root[b] && cist.external[a] === cist.external[b] && cist.regionalRoot[a] === cist.regionalRoot[b];
  const answers = (a: number, b: number, at: number, to: number) =>
    cist.region[a]! >= 0 &&
    cist.region[a] === cist.region[b] &&
    !sameWay(a, b) &&
    instances.some((of) => of.role[at] !== ROLE.none && isDesignated(of.role[to]));
  return {
    takesPart,
    speaks: (port, to) =>
      isDesignated(role[port]) ||
      (instances.some((of) => isDesignated(of.role[port])) && !instances.some((of) => of.role[port] === ROLE.master)) ||
      answers(portBridge[port]!, portBridge[to]!, port, to),
  };
}

/** Ports that their silence guard holds back: they are up, and no other port of their LAN speaks. */
export function silentPorts(topology: Topology, { takesPart, speaks }: Speakers): readonly number[] {
  const guarded = guardedPorts(topology);
  if (guarded.length === 0) return guarded;
  const own = new Set(guarded);
  const { design, portBridge } = topology;
  // Where a classic bridge was heard, version 0 is spoken, which has words for designated ports alone (13.32).
  const isOld = (q: number) => takesPart[q] === 1 && isClassic(design, design.switches[portBridge[q]!]!);
  const heard = (p: number) => {
    const others = peersOf(topology, p);
    const old = others.some(isOld);
    return others.some((q) => takesPart[q] && ((own.has(q) && !old) || speaks(q, p)));
  };
  return guarded.filter((p) => topology.portLan[p]! >= 0 && takesPart[p] && !heard(p));
}

/** The outcome with silent ports held back; the same object where there are none, or the same ones as before. */
export function holdingSilent(outcome: TreeOutcome, silent: readonly number[]): TreeOutcome {
  const ports = silent.filter((p) => isDesignated(outcome.role[p]));
  if (ports.length === 0) return outcome;
  const key = ports.join();
  const before = made.get(outcome);
  if (before?.key === key) return before.held;
  const role = outcome.role.slice();
  for (const p of ports) role[p] = ROLE.disputed;
  const held: TreeOutcome = { ...outcome, role, silent: ports, bare: outcome };
  made.set(outcome, { key, held });
  return held;
}
const made = new WeakMap<TreeOutcome, { readonly key: string; readonly held: TreeOutcome }>();
