/** Which spanning trees a design runs. */
import { modeOf } from '../design';
import type { Design, TreeKey } from '../design';
import { remembered } from '../remembered';
import { isMixed, mixtureOf } from './mixed-modes';
import { mstConfigOf, mstSwitches } from './regions/config';
import type { InstanceMap } from './regions/config';
import { COMMON_TREE, instanceTreeId, vlanTreeId } from '../standard';

export interface Tree extends TreeKey {
  /** `vlan-110` for a VLAN's own tree, `cist`, `msti-2`; `rstp` or `stp` for the common tree of all VLANs. */
  readonly id: string;
  /** VLANs of the design whose frames follow the tree. */
  readonly vlans: readonly number[];
  /** The VLAN whose tree it is; null for the others. */
  readonly vlan: number | null;
  /** MSTID, 0 for the CIST; null for trees that are no MST instance. */
  readonly instance: number | null;
  readonly name: string;
}

/** MSTID of each VLAN by the map that most MST switches have; a draw goes to the one met first. */
export function prevailingMap(design: Design): InstanceMap {
  const votes = new Map<string, { map: InstanceMap; count: number }>();
  for (const s of mstSwitches(design)) {
    const { digest, map } = mstConfigOf(design, s);
    const vote = votes.get(digest);
    if (vote) vote.count++;
    else votes.set(digest, { map, count: 1 });
  }
  let best: { map: InstanceMap; count: number } = { map: new Uint16Array(4096), count: 0 };
  for (const vote of votes.values()) if (vote.count > best.count) best = vote;
  return best.map;
}

/** MSTIDs that have a VLAN on some switch, ascending. */
function instancesOf(design: Design): number[] {
  const configs = new Set(mstSwitches(design).map((s) => mstConfigOf(design, s)));
  return [...new Set([...configs].flatMap((c) => c.instances))].sort((a, b) => a - b);
}

function instanceTrees(design: Design, vlans: readonly number[]): Tree[] {
  const map = prevailingMap(design);
  const held = new Map<number, number[]>();
  for (const vlan of vlans) {
    const list = held.get(map[vlan]!);
    if (list) list.push(vlan);
    else held.set(map[vlan]!, [vlan]);
  }
  return [0, ...instancesOf(design)].map((instance) => ({
    id: instanceTreeId(instance),
    vlans: held.get(instance) ?? [],
    vlan: null,
    instance,
    name: instance === 0 ? 'CIST' : `instance ${instance}`,
  }));
}

const vlanTree = ({ number, name }: Design['vlans'][number]): Tree => ({
  id: vlanTreeId(number),
  vlans: [number],
  vlan: number,
  instance: null,
  name: name ?? '',
});

/** A tree for each VLAN, by number. */
const vlanTrees = remembered((vlans: Design['vlans']) => [...vlans].sort((a, b) => a.number - b.number).map(vlanTree));

/**
 * The trees of a design in the order of their VLANs or instances. Where switches with a tree per VLAN meet others,
 * VLAN 1's tree and the others' one tree are the same, the common tree, since it alone is spoken untagged by both.
 */
export function treesOf(design: Design): readonly Tree[] {
  const mixture = mixtureOf(design);
  const ofVlans = vlanTrees(design.vlans);
  if (!isMixed(mixture) && mixture.perVlan) return ofVlans;
  const numbers = ofVlans.map((t) => t.vlan!);
  if (!isMixed(mixture)) {
    if (mixture.mst) return instanceTrees(design, numbers);
    const mode = design.switches.some((s) => modeOf(design, s) === 'rstp') || design.mode === 'rstp' ? 'rstp' : 'stp';
    return [{ id: mode, vlans: numbers, vlan: null, instance: null, name: 'all VLANs' }];
  }
  const common: Tree = {
    id: COMMON_TREE,
    vlans: numbers.filter((n) => n === 1),
    vlan: null,
    instance: mixture.mst ? 0 : null,
    name: 'common tree',
  };
  const instances = mixture.mst ? instanceTrees(design, []).slice(1) : [];
  return [common, ...instances, ...ofVlans.filter((t) => t.vlan !== 1)];
}

/** System id extension of a tree's bridge identifiers: the VLAN of a per-VLAN tree, the MSTID of an instance, else 0. */
export const systemIdExtension = (tree: Tree): number => tree.vlan ?? tree.instance ?? 0;
