/** Automatic arrangement: the graph for the layout engine, and the job that runs it in a worker and can be cancelled. */
import ELK from 'elkjs/lib/elk-api';
import type { ElkNode } from 'elkjs/lib/elk-api';
import { portById } from '../../core/design';
import type { Design } from '../../core/design';
import { PLATE } from '../chart/geometry';
import type { Point } from '../chart/geometry';

export const WAYS = [
  { id: 'layers', name: 'In layers, core at the top' },
  { id: 'stress', name: 'Freely, by distance' },
] as const;
export type Way = (typeof WAYS)[number]['id'];

const OPTIONS: Record<Way, Record<string, string>> = {
  layers: {
    'elk.algorithm': 'layered',
    'elk.direction': 'DOWN',
    'elk.partitioning.activate': 'true',
    'elk.spacing.nodeNode': '46',
    'elk.layered.spacing.nodeNodeBetweenLayers': '110',
    'elk.layered.crossingMinimization.strategy': 'LAYER_SWEEP',
  },
  stress: { 'elk.algorithm': 'stress', 'elk.stress.desiredEdgeLength': '210', 'elk.spacing.nodeNode': '60' },
};

const TIER = { core: 0, distribution: 1, access: 2 } as const;

/** Switches, hosts and segments as boxes, cables as edges; parallel ones once. */
export function layoutGraph(design: Design, way: Way): ElkNode {
  const tiered = design.switches.some((s) => s.tier);
  const partition = (n: number) =>
    way === 'layers' && tiered ? { layoutOptions: { 'elk.partitioning.partition': String(n) } } : {};
  const size = { width: PLATE.width + 30, height: PLATE.height + 16 };
  const ends = new Map<string, [string, string]>();
  const owner = (end: { port: string } | { host: string }) =>
    'port' in end ? `switch ${portById(design, end.port)!.switch}` : `host ${end.host}`;
  const join = (a: string, b: string) => a !== b && ends.set([a, b].sort().join('\n'), [a, b]);
  for (const { a, b } of design.links) join(owner(a), owner(b));
  for (const s of design.segments) for (const port of s.ports) join(owner({ port }), `segment ${s.id}`);
  return {
    id: 'design',
    layoutOptions: OPTIONS[way],
    children: [
      ...design.switches.map((s) => ({ id: `switch ${s.id}`, ...size, ...partition(s.tier ? TIER[s.tier] : 2) })),
      ...design.segments.map((s) => ({ id: `segment ${s.id}`, width: 80, height: 30, ...partition(2) })),
      ...design.hosts.map((h) => ({ id: `host ${h.id}`, width: h.name.length * 7 + 20, height: 24, ...partition(3) })),
    ],
    edges: [...ends.values()].map(([a, b], i) => ({ id: `e${i}`, sources: [a], targets: [b] })),
  };
}

/** Middles of the boxes, by key. */
export function placesIn(laid: ElkNode): Map<string, Point> {
  return new Map(
    (laid.children ?? []).map((n) => [
      n.id,
      { x: Math.round((n.x ?? 0) + (n.width ?? 0) / 2), y: Math.round((n.y ?? 0) + (n.height ?? 0) / 2) },
    ]),
  );
}

export interface ArrangeJob {
  /** Places by key; null when it was cancelled. */
  readonly done: Promise<Map<string, Point> | null>;
  readonly cancel: () => void;
}

export function arrange(design: Design, way: Way): ArrangeJob {
  const worker = new Worker(new URL('../../workers/arrange.ts', import.meta.url), { type: 'module' });
  let cancel = () => {};
  const cancelled = new Promise<null>((resolve) => {
    cancel = () => {
      worker.terminate();
      resolve(null);
    };
  });
  const failed = new Promise<never>((_, reject) => {
    worker.addEventListener('error', (event) =>
      reject(new Error(event.message || 'The arrangement could not be computed.')),
    );
  });
  const elk = new ELK({ workerFactory: () => worker });
  const laid = elk.layout(layoutGraph(design, way)).then(placesIn);
  const done = Promise.race([laid, cancelled, failed]).finally(() => worker.terminate());
  return { done, cancel };
}
