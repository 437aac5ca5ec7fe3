/** The chart of a tree as it stood at a moment of a rehearsal. */
import type { Design } from '../../core/design';
import { bundleById, portById } from '../../core/design';
import { carriesVlan, spanAt } from '../../core/trace';
import type { PortSpan, Trace } from '../../core/trace';
import type { Scene, WireItem } from '../chart/scene-items';
import { vlanOfTreeId, vlanTreeId } from '../../core/standard';

export interface MomentScene {
  readonly scene: Scene;
  /** Ports that learn or listen at the moment. */
  readonly waiting: ReadonlySet<string>;
}

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

/** Puts roles and states of the moment in the place of those of the design. */
export function sceneAt(design: Design, base: Scene, trace: Trace, tree: string, at: number): MomentScene {
  const own = laneTree(trace, tree);
  const spans = new Map<string, PortSpan | undefined>();
  const vlan = vlanOf(tree);
  for (const lane of trace.ports)
    if (lane.tree === own && (vlan === 0 || carriesVlan(design, lane.port, vlan)))
      spans.set(lane.port, spanAt(lane.spans, at));
  // A member that is drawn by itself, since one end alone has the bundle, is what the bundle is.
  for (const { id, members } of design.bundles) {
    const span = spans.get(id);
    if (span && span.state !== 'disabled')
      for (const member of members) if (spans.get(member)?.state === 'disabled') spans.set(member, span);
  }
  const isDown = (id: string | null): boolean => {
    if (id === null) return false;
    const span = spans.get(id);
    return span !== undefined && (span.state === 'disabled' || span.state === 'guarded');
  };
  const isCut = (id: string | null): boolean => {
    const state = id === null ? undefined : spans.get(id)?.state;
    return state !== undefined && state !== 'forwarding' && state !== 'disabled' && state !== 'guarded';
  };
  const round = new Set(
    trace.loops.flatMap(({ from, to, vlan: of, ports }) =>
      from <= at && (to === null || to > at) && (vlan === 0 || trace.classes[of]?.includes(vlan)) ? ports : [],
    ),
  );
  const roots = new Set(spanAt(trace.roots.find((r) => r.tree === own)?.spans ?? [], at)?.roots ?? []);
  const wires = base.wires.map((wire): WireItem => {
    if (![wire.portA, wire.portB].some((id) => id !== null && spans.has(id))) return wire;
    const down = isDown(wire.portA) || isDown(wire.portB);
    const [blockedA, blockedB] = [!down && isCut(wire.portA), !down && isCut(wire.portB)];
    const rings = [wire.portA, wire.portB].every((id) => id === null || round.has(id));
    return {
      ...wire,
      blockedA,
      blockedB,
      ...(rings ? { round: true } : {}),
      state: down ? 'down' : blockedA || blockedB ? 'blocked' : 'open',
    };
  });
  const pegs = base.pegs.map((peg) => {
    const span = spans.get(peg.id);
    if (!span || peg.role === 'port') return peg;
    // Open without a role: spanning tree is off there.
    if (span.role === 'disabled' && span.state === 'forwarding') return { ...peg, role: 'port' as const };
    return { ...peg, role: span.state === 'guarded' ? 'disabled' : span.role };
  });
  const on = new Set<string>();
  for (const [id, span] of spans) {
    const s = (portById(design, id) ?? bundleById(design, id))?.switch;
    if (s && span && span.state !== 'disabled') on.add(s);
  }
  const plates = base.plates.map((plate) => {
    const root = roots.has(plate.id);
    const standing = root
      ? ('root' as const)
      : plate.standing === 'root' || plate.standing === 'mac-only-root'
        ? ('plain' as const)
        : plate.standing;
    return {
      ...plate,
      standing: on.has(plate.id) || root ? standing : ('off' as const),
      tag: root ? 'root' : on.has(plate.id) ? '' : 'off',
    };
  });
  const waiting = new Set(
    [...spans].flatMap(([id, s]) => (s?.state === 'learning' || s?.state === 'listening' ? [id] : [])),
  );
  return { scene: { ...base, wires, pegs, plates }, waiting };
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
export function keepingScenes(): (base: Scene, now: MomentScene) => MomentScene {
  let last: { base: Scene; moment: MomentScene } | null = null;
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
