/**
 * A second spanning tree solver, kept as plain as possible and sharing nothing with the first but the design: bridges
 * pass their vectors back and forth in rounds until nothing changes. Strings compare in the order of the fields.
 */
import type { Design, Port } from '@/core/design';

type Vector = [root: string, cost: number, bridge: string, port: number, receiver: number];

const hex = (n: number, width: number) => n.toString(16).padStart(width, '0');

function less(a: Vector, b: Vector): boolean {
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return a[i]! < b[i]!;
  return false;
}

export interface NaivePort {
  role: string;
  designatedSwitch: string | null;
  designatedPort: string | null;
}

export interface NaiveTree {
  switches: Map<string, { root: string; cost: number; rootPort: string | null }>;
  ports: Map<string, NaivePort>;
}

function carries(port: Port, vlan: number | null): boolean {
  if (vlan === null || port.vlans === undefined || port.vlans === 'all') return true;
  return port.vlans.split(',').some((part) => {
    const [low, high] = part.split('-').map(Number) as [number, number?];
    return vlan >= low && vlan <= (high ?? low);
  });
}

/** Solves the tree of one VLAN, or of all VLANs when `vlan` is null. No bundles, no hosts. */
export function solveNaively(design: Design, vlan: number | null): NaiveTree {
  const key = String(vlan);
  const members = design.ports.filter((p) => carries(p, vlan));
  const owner = new Map(design.switches.map((s) => [s.id, s]));
  const lans = [
    ...design.links.map((l) => ({
      link: true,
      down: l.down,
      ports: [l.a, l.b].flatMap((e) => ('port' in e ? [e.port] : [])),
    })),
    ...design.segments.map((s) => ({ link: false, down: s.down, ports: s.ports })),
  ];
  const dead = (id: string) => {
    const port = design.ports.find((p) => p.id === id)!;
    return port.down === true || owner.get(port.switch)!.off === true;
  };
  const lanOf = new Map<string, string[]>();
  for (const lan of lans) {
    if (lan.down || (lan.link && lan.ports.some(dead))) continue;
    const alive = lan.ports.filter((id) => !dead(id) && members.some((m) => m.id === id));
    for (const id of alive) lanOf.set(id, alive);
  }
  const bridges = design.switches.filter((s) => !s.off && members.some((p) => p.switch === s.id || vlan === null));
  const taking =
    vlan === null
      ? design.switches.filter((s) => !s.off)
      : bridges.filter((s) => members.some((p) => p.switch === s.id));
  const idOf = (s: (typeof bridges)[number]) =>
    hex((vlan === null ? (s.priority ?? 32768) : (s.vlanPriority?.[key] ?? s.priority ?? 32768)) + (vlan ?? 0), 4) +
    s.mac;
  const bridgeId = new Map(taking.map((s) => [s.id, idOf(s)]));
  const nameOf = new Map(taking.map((s) => [idOf(s), s.id]));
  const portId = (p: Port) => (p.priority ?? 128) * 4096 + p.number;
  const portOf = new Map(members.map((p) => [p.id, p]));
  const costOf = (p: Port) => (vlan === null ? p.cost! : (p.vlanCost?.[key] ?? p.cost!));

  let state = new Map(taking.map((s) => [s.id, { root: bridgeId.get(s.id)!, cost: 0, port: null as string | null }]));
  const offer = (p: Port): Vector => {
    const own = state.get(p.switch)!;
    return [own.root, own.cost, bridgeId.get(p.switch)!, portId(p), 0];
  };
  const best = (lan: string[]) => lan.map((id) => portOf.get(id)!).reduce((a, b) => (less(offer(b), offer(a)) ? b : a));
  for (let changed = true; changed;) {
    changed = false;
    const next: typeof state = new Map();
    for (const s of taking) {
      let chosen: Vector = [bridgeId.get(s.id)!, 0, bridgeId.get(s.id)!, 0, 0];
      let port: string | null = null;
      for (const p of members) {
        if (p.switch !== s.id || !lanOf.has(p.id)) continue;
        const from = best(lanOf.get(p.id)!);
        if (from.switch === s.id) continue;
        const [root, cost, bridge, number] = offer(from);
        const heard: Vector = [root, cost + costOf(p), bridge, number, portId(p)];
        if (less(heard, chosen)) [chosen, port] = [heard, p.id];
      }
      const before = state.get(s.id)!;
      next.set(s.id, { root: chosen[0], cost: chosen[1], port });
      if (before.root !== chosen[0] || before.cost !== chosen[1] || before.port !== port) changed = true;
    }
    state = next;
  }

  const ports = new Map<string, NaivePort>();
  for (const p of members) {
    const lan = lanOf.get(p.id);
    if (!lan || !state.has(p.switch)) {
      ports.set(p.id, { role: 'disabled', designatedSwitch: null, designatedPort: null });
      continue;
    }
    const winner = best(lan);
    const role =
      state.get(p.switch)!.port === p.id
        ? 'root'
        : winner.id === p.id
          ? 'designated'
          : winner.switch === p.switch
            ? 'backup'
            : 'alternate';
    ports.set(p.id, { role, designatedSwitch: winner.switch, designatedPort: winner.id });
  }
  return {
    switches: new Map([...state].map(([id, s]) => [id, { root: nameOf.get(s.root)!, cost: s.cost, rootPort: s.port }])),
    ports,
  };
}
