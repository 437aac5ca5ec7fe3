/**
 * The chart of one tree as plain values: plates, pegs, wires, hosts. Where things are comes from the arrangement, what
 * they show from what stands in the tree. Drawn by components, measured by tests.
 */
import type { SolvedDesign, SolvedTree } from '../../core/trees';
import type { Arranged } from './arrange';
import { frameOf } from './frame';
import type { Drawn, SceneFrame } from './frame';
import type { PlateItem, Scene, Standing, WireItem, WireState } from './scene-items';
import { solvedStands } from './stands';
import type { PortStands, Stands } from './stands';

const STANDING_WORD: Record<Standing, string> = {
  root: 'root',
  'mac-only-root': 'root by MAC address only',
  next: 'next',
  plain: '',
  outside: 'not in this tree',
  off: 'off',
  apart: '',
};

const TAG: Partial<Record<Standing, string>> = { 'mac-only-root': 'root', outside: 'not in tree' };

/** What stands at its ends makes of a wire. An end that is null is a host or a segment. */
export function wireState(
  a: PortStands['frames'] | null,
  b: PortStands['frames'] | null,
): Pick<WireItem, 'state' | 'blockedA' | 'blockedB'> {
  const state = (s: WireState, blockedA = false, blockedB = false) => ({ state: s, blockedA, blockedB });
  if (a === 'down' || b === 'down') return state('down');
  const [outA, outB] = [a === 'outside', b === 'outside'];
  if ((outA || a === null) && (outB || b === null) && (outA || outB)) return state('outside');
  if (outA || outB) return state('half', outA, outB);
  const [blockedA, blockedB] = [a === 'blocked', b === 'blocked'];
  return state(blockedA || blockedB ? 'blocked' : 'open', blockedA, blockedB);
}

function wireIn(stands: Stands, { peer, ...wire }: SceneFrame['wires'][number]): WireItem {
  if (peer) return { ...wire, state: 'open', blockedA: false, blockedB: false };
  const [a, b] = [wire.portA, wire.portB].map((id) => (id === null ? null : stands.port(id)));
  const either = (mark: 'inconsistent' | 'shut') => a?.[mark] === true || b?.[mark] === true;
  const looping = [a, b].every((end) => !end || end.looping === true);
  return {
    ...wire,
    ...(either('inconsistent') && !wire.unseen ? { label: 'inconsistent', alarm: true } : {}),
    ...(either('shut') ? { label: 'BPDU guard', alarm: true } : {}),
    ...(looping ? { round: true, label: 'loop', alarm: true } : {}),
    ...wireState(a?.frames ?? null, b?.frames ?? null),
  };
}

function plateIn(standing: Standing, { bridge: _, ...plate }: SceneFrame['plates'][number]): PlateItem {
  const word = STANDING_WORD[standing];
  if (plate.fold) {
    const what = plate.fold.kind === 'alike' ? `${plate.fold.switches.length} switches alike` : 'folded';
    return { ...plate, standing, tag: TAG[standing] ?? word, spoken: [plate.name, what, plate.second].join(', ') };
  }
  const spoken = [plate.name, word, `priority ${plate.second}`, plate.unlike].filter(Boolean).join(', ');
  return { ...plate, standing, tag: TAG[standing] ?? word, spoken };
}

/** The scene of what stands in a tree. */
export function buildScene({ plates, pegs, wires, ...rest }: SceneFrame, stands: Stands): Scene {
  return {
    ...rest,
    plates: plates.map((plate) => plateIn(stands.switch(plate.bridge), plate)),
    pegs: pegs.map(({ peer, ...peg }) => ({ ...peg, role: peer ? 'port' : stands.port(peg.id).role })),
    wires: wires.map((wire) => wireIn(stands, wire)),
  };
}

/** The scene of a tree at rest, in an arrangement of all its switches or of the plates that are drawn. */
export function sceneOf(solved: SolvedDesign, of: SolvedTree, arranged: Arranged, drawn?: Drawn): Scene {
  const stands = solvedStands(solved, of);
  return buildScene(frameOf(solved, of, arranged, drawn), stands);
}
