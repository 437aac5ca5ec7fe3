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

export function rehearsalRows(): Row[] {
  const big = hub(100, 30);
  const ten = Array.from({ length: 10 }, (_, i) => ({
    id: `e${i}`,
    at: 3 + 5 * i,
    kind: i % 2 ? ('link-up' as const) : ('link-down' as const),
    link: `l${(i >> 1) * 7}`,
  }));
  return [
    row('rehearse 60 s, ten events, 30 trees', big, { until: 60, events: ten }, '5 s'),
    row('rehearse an hour of quiet', asMeant(), { until: 3600, events: [] }, '5 s'),
    // Long enough that compiling does not count.
    row('rehearse five hours of quiet', asMeant(), { until: 18_000, events: [] }, '300 000 BPDUs a second'),
  ];
}
