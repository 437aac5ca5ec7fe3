/** Generated networks with goals that some setting is known to meet: they are read off the same network set otherwise. */
import { emptyDesign } from '@/core/design';
import type { Design, Goal } from '@/core/design';
import { numberToMac } from '@/core/standard';
import { blockedPorts, rootsOf, solveDesign, ROLE } from '@/core/trees';
import { successor, wayBetween } from '@/core/goals';

/** A small generator of its own (mulberry32), so that a case is known by its seed. */
export function random(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A connected network of `count` switches, about half as many links again, three VLANs with a tree each. */
export function network(seed: number, count: number): Design {
  const next = random(seed);
  const pick = (n: number) => Math.floor(next() * n);
  const design = emptyDesign(`generated ${seed}`);
  design.vlans = [10, 20, 30].map((number) => ({ id: `v${number}`, number }));
  const macs = [...Array(count).keys()].sort(() => next() - 0.5);
  for (let i = 0; i < count; i++)
    design.switches.push({
      id: `s${i}`,
      name: `s${i}`,
      mac: numberToMac(0x00005e005300 + macs[i]! + 1),
      tier: i < 2 ? 'core' : i < 8 ? 'distribution' : 'access',
    });
  const used = design.switches.map(() => 0);
  const link = (a: number, b: number, speed: number) => {
    const ends = [a, b].map((s) => {
      const number = ++used[s]!;
      const id = `s${s}:${number}`;
      design.ports.push({ id, switch: `s${s}`, name: `${number}`, number, speed });
      return id;
    });
    design.links.push({ id: ends.join('--'), a: { port: ends[0]! }, b: { port: ends[1]! } });
  };
  const speeds = [1000, 1000, 1000, 10000, 100];
  for (let i = 1; i < count; i++) link(i, pick(Math.min(i, 8)), speeds[pick(speeds.length)]!);
  for (let i = 0; i < count / 2; i++) {
    const [a, b] = [pick(count), pick(count)];
    if (a !== b) link(a, b, speeds[pick(speeds.length)]!);
  }
  return design;
}

/** The network with a few priorities and costs set at random. */
function otherwise(design: Design, next: () => number): Design {
  const pick = (n: number) => Math.floor(next() * n);
  const copy: Design = structuredClone(design);
  for (const vlan of ['10', '20', '30']) {
    const order = [pick(8), pick(design.switches.length)];
    order.forEach((s, i) => {
      const at = copy.switches[s]!;
      at.vlanPriority = { ...at.vlanPriority, [vlan]: 4096 * (i + 1) };
    });
    for (let i = 0; i < 4; i++) {
      const port = copy.ports[pick(copy.ports.length)]!;
      port.vlanCost = { ...port.vlanCost, [vlan]: [1, 200, 2000, 20000, 200000, 2000000][pick(6)]! };
    }
  }
  return copy;
}

/** A network and goals that hold in it when it is set otherwise, most of which do not hold as it is. */
export function wishes(seed: number, count = 60, goals = 5): Design {
  const design = network(seed, count);
  const next = random(seed * 7919 + 1);
  const pick = (n: number) => Math.floor(next() * n);
  const solved = solveDesign(otherwise(design, next));
  for (let i = 0; i < goals; i++) {
    const of = solved.trees[pick(3)]!;
    const vlans = String(of.tree.vlan);
    const id = `g${i}`;
    const goal = ((): Goal => {
      switch (pick(4)) {
        case 0: {
          const root = rootsOf(of)[0]!;
          return { id, type: 'root', vlans, switch: `s${root}`, next: `s${successor(of, root)}` };
        }
        case 1: {
          const cuts = blockedPorts(of);
          const port = cuts[pick(cuts.length)]!;
          return { id, type: 'cut', vlans, port: solved.topology.ports[port]!.element.id };
        }
        case 2: {
          const open = [...of.outcome.role.keys()].filter((p) => of.outcome.role[p] === ROLE.root);
          return { id, type: 'carries', vlans, port: solved.topology.ports[open[pick(open.length)]!]!.element.id };
        }
        default: {
          const [from, to] = [pick(count), pick(count)];
          const atMost = wayBetween(of, from, to).length - 1;
          return { id, type: 'path', vlans, from: { switch: `s${from}` }, to: { switch: `s${to}` }, atMost };
        }
      }
    })();
    design.goals.push(goal);
  }
  return design;
}
