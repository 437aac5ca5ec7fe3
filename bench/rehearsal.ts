/** How fast networks are rehearsed: BPDUs a second on one core, simulated against real time, memory. */
import { emptyDesign } from '../src/core/design';
import type { Design, Script } from '../src/core/design';
import { rehearse } from '../src/core/simulation';
import { asMeant } from '../src/demo/brackwater';
import type { Row } from './core';

/** Four switches in a ring, all others cabled to two of them, one root a VLAN. */
function hub(count: number, vlans: number): Design {
  const design = emptyDesign('rehearsed');
  design.vlans = Array.from({ length: vlans }, (_, i) => ({ id: `v${i + 2}`, number: i + 2 }));
  design.switches = Array.from({ length: count }, (_, i) => ({
    id: `s${i}`,
    name: `s${i}`,
    mac: `00:00:5e:00:53:${i.toString(16).padStart(2, '0')}`,
    vlanPriority: Object.fromEntries(
      design.vlans.filter((v) => (v.number * 7) % count === i).map((v) => [String(v.number), 4096]),
    ),
  }));
  const used = new Array<number>(count).fill(0);
  const port = (i: number) => {
    const number = ++used[i]!;
    design.ports.push({ id: `s${i}:${number}`, switch: `s${i}`, name: `${number}`, number, speed: 1000 });
    return { port: `s${i}:${number}` };
  };
  const link = (a: number, b: number) => design.links.push({ id: `l${design.links.length}`, a: port(a), b: port(b) });
  for (let i = 4; i < count; i++) {
    link(i, i % 4);
    link(i, (i + 1) % 4);
  }
  for (let i = 0; i < 4; i++) link(i, (i + 1) % 4);
  return design;
}

function row(what: string, design: Design, script: Pick<Script, 'until' | 'events'>, aim: string): Row {
  const began = performance.now();
  const trace = rehearse(design, { id: 's', name: 's', probes: [], ...script });
  const ms = performance.now() - began;
  const { heapUsed, arrayBuffers } = process.memoryUsage();
  const memory = Math.round((heapUsed + arrayBuffers) / 1e6);
  const rate = Math.round(trace.bpdus / (ms / 1000));
  return {
    what,
    size: `${design.switches.length} switches, ${trace.bpdus} BPDUs, ${rate} a second, ${((script.until * 1000) / ms).toFixed(0)} times real time, ${memory} MB in use`,
    medianMs: ms,
    worstMs: ms,
    runs: 1,
    aim,
  };
}

/** Small networks side by side, `from` one number up to another: a ring of four with a chord, in which a cable fails and comes back twice. */
function rings(from: number, to: number): { design: Design; script: Pick<Script, 'until' | 'events'> } {
  const design = emptyDesign('rings');
  design.mode = 'rstp';
  design.vlans = [{ id: 'v1', number: 1 }];
  const events: Script['events'] = [];
  for (let n = from; n < to; n++) {
    const used = [0, 0, 0, 0];
    const id = (i: number) => `n${n}s${i}`;
    const port = (i: number, more: object = {}) => {
      const number = ++used[i]!;
      design.ports.push({ id: `${id(i)}:${number}`, switch: id(i), name: `${number}`, number, speed: 1000, ...more });
      return { port: `${id(i)}:${number}` };
    };
    for (let i = 0; i < 4; i++) {
      const mac = `00:00:5e:00:${n.toString(16).padStart(2, '0')}:0${i}`;
      design.switches.push({ id: id(i), name: id(i), mac, priority: 4096 * (i + 1) });
    }
    for (const [a, b] of [
      [0, 1],
      [1, 2],
      [2, 3],
      [3, 0],
      [0, 2],
    ] as const)
      design.links.push({ id: `n${n}l${a}${b}`, a: port(a), b: port(b) });
    for (const i of [1, 3]) {
      design.hosts.push({ id: `n${n}h${i}`, name: `n${n}h${i}`, vlan: 1 });
      design.links.push({ id: `n${n}k${i}`, a: port(i, { edge: true }), b: { host: `n${n}h${i}` } });
    }
    for (let e = 0; e < 4; e++)
      events.push({
        id: `e${n}.${e}`,
        at: 2 + 10 * e + (n % 37) / 9,
        kind: e % 2 ? 'link-up' : 'link-down',
        link: `n${n}l01`,
      });
  }
  return { design, script: { until: 60, events: events.sort((a, b) => a.at - b.at) } };
}

/** The same networks one by one, and together in one design. */
function sideBySide(count: number): Row[] {
  for (let i = 0; i < 20; i++) row('', rings(0, 1).design, rings(0, 1).script, '');
  const apart = Array.from({ length: count }, (_, n) => rings(n, n + 1)).reduce(
    (sum, { design, script }) => sum + row('', design, script, '').medianMs,
    0,
  );
  const { design, script } = rings(0, count);
  const together = row(`rehearse ${count} networks of 4 switches together`, design, script, 'as long as apart');
  return [
    {
      ...together,
      what: `rehearse ${count} networks of 4 switches one by one`,
      medianMs: apart,
      worstMs: apart,
      aim: '',
    },
    together,
  ];
}

export function rehearsalRows(): Row[] {
  const big = hub(100, 30);
  const ten = Array.from({ length: 10 }, (_, i) => ({
    id: `e${i}`,
    at: 3 + 5 * i,
    kind: i % 2 ? ('link-up' as const) : ('link-down' as const),
    link: `l${(i >> 1) * 7}`,
  }));
  return [
    row('rehearse 60 s, ten events, 30 trees', big, { until: 60, events: ten }, '1.5 s'),
    row('rehearse an hour of quiet', asMeant(), { until: 3600, events: [] }, '5 s'),
    // Long enough that compiling does not count.
    row('rehearse five hours of quiet', asMeant(), { until: 18_000, events: [] }, '300 000 BPDUs a second'),
    ...sideBySide(105),
  ];
}
