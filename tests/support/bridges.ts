/** Bridges of the rapid protocol and of instances, and cables between them, for tests of their machines. */
import { configurationOctets, decodeBpdu, encodeBpdu } from '@/core/protocols/frames';
import type { Bpdu } from '@/core/protocols/frames';
import { createBridge, hearBpdu, setPortsEnabled, tickBridge } from '@/core/protocols/mst';
import type { BridgeSettings, MstBridge, Port, PortSettings, TreePort } from '@/core/protocols/mst';

export const TIMERS = { helloTime: 2, maxAge: 20, forwardDelay: 15, holdCount: 6, maxHops: 20 };
export const settings = (mac: number, priority = 32768, more: Partial<BridgeSettings> = {}): BridgeSettings => ({
  mac,
  version: 2,
  trees: [{ instance: 0, priority }],
  configuration: null,
  timers: TIMERS,
  ...more,
});
export const port = (number: number, more: Partial<PortSettings> = {}): PortSettings => ({
  number,
  pointToPoint: true,
  edge: false,
  autoEdge: false,
  portId: [0x8000 | number],
  externalCost: 20_000,
  internalCost: [20_000],
  ...more,
});
export const REGION = (name: string) => configurationOctets(name, 1, '00'.repeat(16));
export const regional = (mac: number, name: string, priority = 32768): BridgeSettings =>
  settings(mac, priority, {
    version: 3,
    trees: [
      { instance: 0, priority },
      { instance: 1, priority: priority + 1 },
    ],
    configuration: REGION(name),
  });
export const both = (number: number, more: Partial<PortSettings> = {}): PortSettings =>
  port(number, { portId: [0x8000 | number, 0x8000 | number], internalCost: [20_000, 20_000], ...more });

/** What a bridge sent since this was last asked, by port. */
export function sent(b: MstBridge, number?: number): Bpdu[] {
  const found = b.effects.flatMap((e) =>
    e.kind === 'send' && (number === undefined || e.port === number) ? [decodeBpdu(e.octets)!] : [],
  );
  b.effects.length = 0;
  return found;
}
/** A tree at a port of a bridge. */
export const at = (b: MstBridge, number: number, tree = 0): TreePort => b.byNumber[number]!.trees[tree]!;

/** Bridges and the cables between them, by index and port; frames arrive in the order in which they were sent. */
export function network(bridges: readonly MstBridge[], cables: readonly (readonly [number, number, number, number])[]) {
  const far = (bridge: number, number: number): [number, number] | null => {
    for (const [a, p, b, q] of cables) {
      if (a === bridge && p === number) return [b, q];
      if (b === bridge && q === number) return [a, p];
    }
    return null;
  };
  const settle = () => {
    for (let i = 0; i < 10_000; i++) {
      const from = bridges.findIndex((b) => b.effects.length > 0);
      if (from < 0) return;
      const effect = bridges[from]!.effects.shift()!;
      const to = effect.kind === 'send' ? far(from, effect.port) : null;
      if (to && effect.kind === 'send') hearBpdu(bridges[to[0]]!, to[1], effect.octets);
    }
    throw new Error('network: BPDUs without end');
  };
  const light = (on: boolean, ...which: readonly (readonly [number, number, number, number])[]) => {
    for (const [a, p, b, q] of which) {
      setPortsEnabled(bridges[a]!, [p], on);
      setPortsEnabled(bridges[b]!, [q], on);
    }
    settle();
  };
  const wait = (seconds: number) => {
    for (let s = 0; s < seconds; s++)
      for (const b of bridges) {
        tickBridge(b);
        settle();
      }
  };
  light(true, ...cables);
  return { light, wait };
}

/** A bridge with ports that are up, and its first word said. */
export function running(of: BridgeSettings, ...ports: readonly PortSettings[]): MstBridge {
  const b = createBridge(of, ports);
  setPortsEnabled(
    b,
    ports.map((p) => p.number),
    true,
  );
  tickBridge(b);
  b.effects.length = 0;
  return b;
}

export const portOf = (b: MstBridge, number: number): Port => b.byNumber[number]!;

export function seconds(b: MstBridge, count: number): void {
  for (let s = 0; s < count; s++) tickBridge(b);
}

/** A BPDU of a bridge at the root, of address 9 and the best priority, from its first port; other fields as given. */
export const word = (more: Partial<Bpdu> = {}): Bpdu => ({
  type: 'rst',
  flags: 0x0c,
  rootPriority: 4096,
  rootMac: 9,
  rootPathCost: 0,
  bridgePriority: 4096,
  bridgeMac: 9,
  port: 0x8001,
  messageAge: 0,
  maxAge: 20 * 256,
  helloTime: 2 * 256,
  forwardDelay: 15 * 256,
  ...more,
});
export const tell = (b: MstBridge, number: number, bpdu: Bpdu): void => hearBpdu(b, number, encodeBpdu(bpdu));

/** What a port made of what it heard since effects were taken last. */
export const heardAs = (b: MstBridge, tree = 0): string[] =>
  b.effects.flatMap((e) => (e.kind === 'heard' && e.tree === tree ? [e.info] : []));
export const flushed = (b: MstBridge): number[] => b.effects.flatMap((e) => (e.kind === 'flush' ? e.ports : []));
