/**
 * A second solver for the CIST and MST instances, kept as plain as possible and sharing nothing with the first but the
 * design: bridges pass whole vectors back and forth in rounds until nothing changes. Information that has crossed too many
 * bridges is dropped, as message age and remaining hops have it. No bundles, no hosts, no VLAN trees.
 */
import type { Design, Port, Switch } from '@/core/design';

type Field = string | number;
type Vector = Field[];
const MOST_HOPS = 40;

const hex = (n: number) => n.toString(16).padStart(4, '0');
const less = (a: Vector, b: Vector): boolean => {
  for (let i = 0; i < Math.min(a.length, b.length); i++) if (a[i] !== b[i]) return a[i]! < b[i]!;
  return false;
};

function expand(text: string): number[] {
  return text
    .split(',')
    .filter((part) => part !== '')
    .flatMap((part) => {
      const [low, high] = part.split('-').map(Number) as [number, number?];
      return Array.from({ length: (high ?? low) - low + 1 }, (_, i) => low + i);
    });
}

/** Name, revision and map as text; null for a switch without MSTP. */
export function regionText(design: Design, s: Switch): string | null {
  if ((s.protocol ?? design.mode) !== 'mstp') return null;
  const region = s.region === undefined ? design.regions[0] : design.regions.find((r) => r.id === s.region);
  const map: Record<number, number> = {};
  for (const [instance, vlans] of Object.entries(region?.map ?? {}))
    for (const vlan of expand(vlans)) map[vlan] = Number(instance);
  for (const [vlan, instance] of Object.entries(s.vlanInstance ?? {}))
    if (instance === 0) delete map[Number(vlan)];
    else map[Number(vlan)] = instance;
  return JSON.stringify([s.mstName ?? region?.name ?? s.mac, s.mstRevision ?? region?.revision ?? 0, map]);
}

const instancesOf = (text: string | null): number[] =>
  text === null ? [] : [...new Set(Object.values((JSON.parse(text) as [string, number, object])[2]))].map(Number);

export interface NaiveMst {
  /** By tree (0 is the CIST), then by switch and by port. */
  bridges: Map<
    number,
    Map<string, { root: string; external: number; regionalRoot: string; internal: number; port: string | null }>
  >;
  roles: Map<number, Map<string, string>>;
}

export function solveMstNaively(design: Design): NaiveMst {
  const alive = design.switches.filter((s) => !s.off);
  const byId = new Map(alive.map((s) => [s.id, s]));
  const region = new Map(alive.map((s) => [s.id, regionText(design, s)]));
  const port = new Map(design.ports.map((p) => [p.id, p]));
  const dead = (id: string) => port.get(id)!.down === true || !byId.has(port.get(id)!.switch);
  const lanOf = new Map<string, string[]>();
  for (const l of design.links) {
    const ends = [l.a, l.b].flatMap((e) => ('port' in e ? [e.port] : []));
    if (!l.down && !ends.some(dead)) for (const id of ends) lanOf.set(id, ends);
  }
  for (const s of design.segments) {
    const ends = s.ports.filter((id) => !dead(id));
    if (!s.down) for (const id of ends) lanOf.set(id, ends);
  }
  const up = design.ports.filter((p) => lanOf.has(p.id));
  const together = (a: string, b: string) => region.get(a) !== null && region.get(a) === region.get(b);

  const priority = (s: Switch, m: number) => s.instancePriority?.[m] ?? s.priority ?? 32768;
  const idOf = (s: Switch, m: number) => hex(priority(s, m) + m) + s.mac;
  const portId = (p: Port, m: number) => {
    const own = region.get(p.switch) === null ? undefined : p.instancePriority?.[m];
    return (own ?? p.priority ?? 128) * 4096 + p.number;
  };
  const external = (p: Port) => p.cost!;
  const internal = (p: Port, m: number) => p.instanceCost?.[m] ?? p.internalCost ?? p.cost!;
  const cistId = (s: Switch) => (region.get(s.id) === null ? hex(s.priority ?? 32768) + s.mac : idOf(s, 0));
  const name = new Map<string, string>();

  // The CIST: [root, external, regional root, internal] by bridge.
  interface State {
    vector: Vector;
    age: number;
    port: string | null;
  }
  let state = new Map<string, State>(
    alive.map((s) => {
      const id = cistId(s);
      name.set(id, s.id);
      return [s.id, { vector: [id, 0, id, 0], age: 0, port: null }];
    }),
  );
  const ids = new Map(alive.map((s) => [s.id, cistId(s)]));
  const offer = (p: Port): Vector => [...state.get(p.switch)!.vector, ids.get(p.switch)!, portId(p, 0)];
  const winner = (lan: string[]) => lan.map((id) => port.get(id)!).reduce((a, b) => (less(offer(b), offer(a)) ? b : a));
  for (let round = 0; ; round++) {
    if (round > 2000) throw new Error('the CIST does not come to rest');
    const next = new Map<string, State>();
    for (const s of alive) {
      const own = ids.get(s.id)!;
      let best: { key: Vector; state: State } = {
        key: [own, 0, own, 0, own],
        state: { vector: [own, 0, own, 0], age: 0, port: null },
      };
      if (region.get(s.id) === null) best.key = [own, 0, own];
      for (const p of up.filter((q) => q.switch === s.id)) {
        const from = winner(lanOf.get(p.id)!);
        if (from.switch === s.id) continue;
        const { age } = state.get(from.switch)!;
        if (age >= MOST_HOPS) continue;
        const [root, ext, rr, int, bridge, sender] = offer(from) as [string, number, string, number, string, number];
        const inside = together(s.id, from.switch);
        const vector: Vector = inside ? [root, ext, rr, int + internal(p, 0)] : [root, ext + external(p), own, 0];
        // A bridge without MSTP takes the regional root for the sender.
        const key: Vector =
          region.get(s.id) === null
            ? [root, ext + external(p), rr, sender, portId(p, 0)]
            : [...vector, bridge, sender, portId(p, 0)];
        if (less(key, best.key)) best = { key, state: { vector, age: age + 1, port: p.id } };
      }
      next.set(s.id, best.state);
    }
    const same = [...next].every(([id, s]) => JSON.stringify(s) === JSON.stringify(state.get(id)));
    state = next;
    if (same) break;
  }
  const owner = new Map(up.map((p) => [p.id, winner(lanOf.get(p.id)!)]));
  const cistRole = (p: Port): string => {
    const o = owner.get(p.id)!;
    if (state.get(p.switch)!.port === p.id) return 'root';
    if (o.id === p.id) return 'designated';
    return o.switch === p.switch ? 'backup' : 'alternate';
  };
  const result: NaiveMst = { bridges: new Map(), roles: new Map() };
  result.bridges.set(
    0,
    new Map(
      [...state].map(([id, { vector, port: rootPort }]) => {
        const [root, ext, rr, int] = vector as [string, number, string, number];
        return [
          id,
          { root: name.get(root)!, external: ext, regionalRoot: name.get(rr)!, internal: int, port: rootPort },
        ];
      }),
    ),
  );
  result.roles.set(0, new Map(up.map((p) => [p.id, cistRole(p)])));

  for (const m of new Set([...region.values()].flatMap(instancesOf))) {
    const taking = alive.filter((s) => instancesOf(region.get(s.id)!).includes(m));
    const takes = new Set(taking.map((s) => s.id));
    const own = new Map(taking.map((s) => [s.id, idOf(s, m)]));
    const named = new Map(taking.map((s) => [idOf(s, m), s.id]));
    let inst = new Map<string, { vector: Vector; port: string | null }>(
      taking.map((s) => [s.id, { vector: [own.get(s.id)!, 0], port: null }]),
    );
    const mine = (p: Port) => takes.has(p.switch) && together(p.switch, owner.get(p.id)!.switch);
    const inner = (p: Port) =>
      lanOf
        .get(p.id)!
        .map((id) => port.get(id)!)
        .filter((q) => together(q.switch, p.switch));
    const says = (p: Port): Vector => [...inst.get(p.switch)!.vector, own.get(p.switch)!, portId(p, m)];
    const wins = (p: Port) => inner(p).reduce((a, b) => (less(says(b), says(a)) ? b : a));
    for (let round = 0; ; round++) {
      if (round > 2000) throw new Error('an instance does not come to rest');
      const next: typeof inst = new Map();
      for (const s of taking) {
        let key: Vector = [own.get(s.id)!, 0, own.get(s.id)!];
        let chosen = { vector: [own.get(s.id)!, 0] as Vector, port: null as string | null };
        for (const p of up.filter((q) => q.switch === s.id && mine(q))) {
          const from = wins(p);
          if (from.switch === s.id) continue;
          const [root, cost, bridge, sender] = says(from) as [string, number, string, number];
          const heard: Vector = [root, cost + internal(p, m), bridge, sender, portId(p, m)];
          if (less(heard, key)) {
            key = heard;
            chosen = { vector: heard.slice(0, 2), port: p.id };
          }
        }
        next.set(s.id, chosen);
      }
      const same = [...next].every(([id, s]) => JSON.stringify(s) === JSON.stringify(inst.get(id)));
      inst = next;
      if (same) break;
    }
    result.bridges.set(
      m,
      new Map(
        [...inst].map(([id, { vector, port: rootPort }]) => {
          const root = named.get(vector[0] as string)!;
          return [id, { root, external: 0, regionalRoot: root, internal: vector[1] as number, port: rootPort }];
        }),
      ),
    );
    result.roles.set(
      m,
      new Map(
        up
          .filter((p) => takes.has(p.switch))
          .map((p) => {
            if (!mine(p)) return [p.id, cistRole(p) === 'root' ? 'master' : cistRole(p)];
            if (inst.get(p.switch)!.port === p.id) return [p.id, 'root'];
            const w = wins(p);
            return [p.id, w.id === p.id ? 'designated' : w.switch === p.switch ? 'backup' : 'alternate'];
          }),
      ),
    );
  }
  return result;
}
