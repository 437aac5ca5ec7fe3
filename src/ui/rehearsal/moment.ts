/** What stands in a tree at a moment of a rehearsal. */
import type { Design } from '../../core/design';
import { bundleById, portById } from '../../core/design';
import { carriesVlan, spanAt } from '../../core/trace';
import type { PortSpan, PortState, Trace } from '../../core/trace';
import type { Scene } from '../chart/scene-items';
import type { PortStands, Stands } from '../chart/stands';
import type { Topology } from '../../core/trees';
import { vlanOfTreeId, vlanTreeId } from '../../core/standard';

/** Id of a rehearsed tree for a tree in view: VLANs that cannot differ are rehearsed once. */
export function laneTree(trace: Trace, tree: string): string {
  if (trace.ports.some((l) => l.tree === tree)) return tree;
  const own = Object.entries(trace.classes).find(([, vlans]) => vlans.includes(vlanOf(tree)))?.[0];
  return own ? vlanTreeId(Number(own)) : (trace.ports[0]?.tree ?? tree);
}

/** VLAN of a rehearsed tree; 0 for one of all VLANs. */
export const vlanOf = (tree: string): number => vlanOfTreeId(tree) ?? 0;

/** Whether frames of a VLAN follow a rehearsed tree. */
export const inTree = (trace: Trace, own: string, vlan: number): boolean =>
  vlanOfTreeId(own) === null || laneTree(trace, vlanTreeId(vlan)) === own;

/** The last span of each port that a tree runs on, up to a moment. */
function spansAt(design: Design, trace: Trace, own: string, vlan: number, at: number) {
  const spans = new Map<string, PortSpan>();
  for (const lane of trace.ports) {
    if (lane.tree !== own || (vlan !== 0 && !carriesVlan(design, lane.port, vlan))) continue;
    const span = spanAt(lane.spans, at);
    if (span) spans.set(lane.port, span);
  }
  // A member that is drawn by itself, since one end alone has the bundle, is what the bundle is.
  for (const { id, members } of design.bundles) {
    const span = spans.get(id);
    if (span && span.state !== 'disabled')
      for (const member of members) if (spans.get(member)?.state === 'disabled') spans.set(member, span);
  }
  return spans;
}

/** Ports through which frames of a VLAN loop at a moment; of any VLAN for 0. */
const loopingAt = (trace: Trace, vlan: number, at: number): ReadonlySet<string> =>
  new Set(
    trace.loops.flatMap(({ from, to, vlan: of, ports }) =>
      from <= at && (to === null || to > at) && (vlan === 0 || trace.classes[of]?.includes(vlan)) ? ports : [],
    ),
  );

const FRAMES: Record<PortState, PortStands['frames']> = {
  forwarding: 'pass',
  disabled: 'down',
  guarded: 'down',
  discarding: 'blocked',
  listening: 'blocked',
  learning: 'blocked',
  inconsistent: 'blocked',
};

function portStands({ role, state }: PortSpan): PortStands {
  // Open without a role: spanning tree is off there.
  const letter = state === 'guarded' ? 'disabled' : role === 'disabled' && state === 'forwarding' ? 'port' : role;
  return { role: letter, frames: FRAMES[state], ...(state === 'inconsistent' ? { inconsistent: true } : {}) };
}

export interface MomentStands extends Stands {
  /** Ports that learn or listen at the moment. */
  readonly waiting: ReadonlySet<string>;
}

/** What a run says of a moment; of ports and switches that its tree does not know, what the solver says of the design. */
export function standsAt(topology: Topology, solved: Stands, trace: Trace, tree: string, at: number): MomentStands {
  const { design, actsAs } = topology;
  const own = laneTree(trace, tree);
  const vlan = vlanOf(tree);
  const spans = spansAt(design, trace, own, vlan, at);
  const looping = loopingAt(trace, vlan, at);
  const roots = new Set(spanAt(trace.roots.find((r) => r.tree === own)?.spans ?? [], at)?.roots ?? []);
  /** Switches with a port in the tree, and whether one of them is up. */
  const up = new Map<string, boolean>();
  for (const [id, { state }] of spans) {
    const home = (portById(design, id) ?? bundleById(design, id))?.switch;
    if (home) up.set(home, state !== 'disabled' || up.get(home) === true);
  }
  return {
    waiting: new Set([...spans].flatMap(([id, s]) => (s.state === 'learning' || s.state === 'listening' ? [id] : []))),
    port: (id) => {
      const span = spans.get(id);
      const stands = span ? portStands(span) : solved.port(id);
      return looping.has(id) ? { ...stands, looping: true } : stands;
    },
    switch: (index) => {
      // Of a pair that acts as one bridge, both are what the first is.
      const { id } = design.switches[actsAs[index]!]!;
      if (roots.has(id)) return 'root';
      if (up.get(id) === false) return 'off';
      const standing = solved.switch(index);
      return standing === 'outside' || (standing === 'off' && !up.has(id)) ? standing : 'plain';
    },
  };
}

export interface MomentScene {
  readonly scene: Scene;
  readonly waiting: ReadonlySet<string>;
}

const alike = <T extends object>(a: T, b: T): boolean => {
  const keys = Object.keys(b) as (keyof T)[];
  return keys.length === Object.keys(a).length && keys.every((key) => a[key] === b[key]);
};

/** The things of before wherever nothing of them differs; the list of before where nothing does at all. */
function kept<T extends { readonly id: string }>(before: readonly T[], now: readonly T[]): readonly T[] {
  const known = new Map(before.map((item) => [item.id, item]));
  let same = before.length === now.length;
  const list = now.map((item, i) => {
    const old = known.get(item.id);
    const use = old && alike(old, item) ? old : item;
    if (use !== before[i]) same = false;
    return use;
  });
  return same ? before : list;
}

/**
 * Remembers the moment before, so that what did not change is the same object, and the chart draws only what did. From
 * another base everything is new.
 */
export function keepingScenes(): (base: object, now: MomentScene) => MomentScene {
  let last: { base: object; moment: MomentScene } | null = null;
  return (base, now) => {
    const before = last?.base === base ? last.moment : null;
    if (before) {
      const { wires, pegs, plates } = before.scene;
      const scene = {
        ...now.scene,
        wires: kept(wires, now.scene.wires),
        pegs: kept(pegs, now.scene.pegs),
        plates: kept(plates, now.scene.plates),
      };
      const unmoved = scene.wires === wires && scene.pegs === pegs && scene.plates === plates;
      const waits = [...now.waiting].join() === [...before.waiting].join();
      if (unmoved && waits) return before;
      now = { scene: unmoved ? before.scene : scene, waiting: waits ? before.waiting : now.waiting };
    }
    last = { base, moment: now };
    return now;
  };
}
