/** Figures of reading a network: a million frames of a capture, and two hundred agents from one address on. */
import type { Design } from '../src/core/design';
import { asBuilt, captureReader, compareWithDesign } from '../src/core/observe';
import { rehearse } from '../src/core/simulation';
import { alikeAt, pcapng, portWords } from '../src/core/trace';
import { snmpFence } from '../src/api/observe';
import { discover } from '../src/server/snmp/discover';
import { StandIn } from '../src/server/snmp/stand-in';
import { asMeant } from '../src/demo/brackwater';
import { campus } from '../src/demo/campus';
import type { Row } from './core';

const FRAMES = 1_000_000;
const PORT = 11_610;

/** Frames of the demo, again and again, until there are a million; fed in pieces of a megabyte. */
function capture(): Row {
  const design = asMeant();
  const trace = rehearse(design, { id: 'x', name: 'x', until: 60, events: [], probes: [] });
  const octets = pcapng(trace.frames, {
    names: (p) => portWords(design, p),
    alike: alikeAt(design, trace),
    of: 'every-vlan',
  });
  const began = performance.now();
  const reader = captureReader('wire.pcapng', null);
  const PIECE = 1024 * 1024;
  while (reader.frames < FRAMES)
    for (let at = 0; at < octets.length; at += PIECE) reader.push(octets.slice(at, at + PIECE));
  const observations = reader.end();
  const took = performance.now() - began;
  const memory = Math.round(process.memoryUsage().heapUsed / 1e6);
  const size = `${reader.frames} frames, ${observations.length} senders, ${memory} MB`;
  return { what: 'read a capture', size, medianMs: took, worstMs: took, runs: 1, aim: '10 s a million frames' };
}

/** Every switch of a design as an agent in this process, asked over the network by ten at once. */
async function asked(design: Design): Promise<Row[]> {
  const credentials = { version: '2c', community: 'bench' } as const;
  const network = new StandIn(design, { port: PORT, speed: 1, credentials: [credentials] });
  await network.start();
  const [first] = network.switches as [StandIn['switches'][number]];
  const began = performance.now();
  const { observations } = await discover({
    seeds: [first],
    credentials,
    fence: snmpFence.parse({ timeout: 20_000 }),
    signal: new AbortController().signal,
    progress: () => undefined,
  });
  const read = performance.now();
  network.stop();
  const { network: there } = asBuilt(observations, 'read');
  const drawn = performance.now();
  const differences = compareWithDesign(design, there);
  const ended = performance.now();
  const size = `${observations.length} switches, ${there.links.length} links`;
  const row = (what: string, ms: number, aim: string): Row => ({ what, size, medianMs: ms, worstMs: ms, runs: 1, aim });
  return [
    row('ask agents, 10 at once, agents in the same process', read - began, '60 s'),
    row('unite, draw and check', drawn - read, 'none'),
    { ...row('compare with the design', ended - drawn, 'none'), size: `${size}, ${differences.length} differences` },
  ];
}

export async function benchObserve(): Promise<Row[]> {
  return [capture(), ...(await asked(campus({ switches: 200, vlans: 10, outcomes: 4 })))];
}
