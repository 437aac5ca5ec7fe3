/** A change plan in a worker: searched, arranged, of maintenance or of a migration; can be stopped, with the best so far. */
import type { Design, Mode } from '../core/design';
import { migrations, planArranged, planMaintenance, planning } from '../core/plan';
import type { Migration, PlanOptions, PlanProgress, Planned, Reply, Target, Work } from '../core/plan';
import { serveJob } from './job';

export interface PlanRequest {
  readonly ask:
    | { readonly kind: 'change'; readonly from: Design; readonly to: Design }
    | { readonly kind: 'maintenance'; readonly design: Design; readonly target: Target }
    | { readonly kind: 'migration'; readonly design: Design; readonly mode: Mode };
  readonly options: PlanOptions;
  /** Steps in their order, where nothing is to be searched, from the first design to the last. */
  readonly arranged: { readonly from: Design; readonly to: Design; readonly works: readonly Work[] } | null;
}

export interface PlanAnswer {
  /** Null where there is nothing to plan. */
  readonly planned: Planned | null;
  /** Of a migration, by each rule of order. */
  readonly ways: readonly Migration[];
}

/** Milliseconds in which orders are compared at most, and between two reports at least. */
const LONGEST = 15_000;
const BETWEEN_REPORTS = 150;

const pause = () => new Promise((resolve) => setTimeout(resolve, 0));

type Context = Parameters<Parameters<typeof serveJob<PlanRequest, PlanProgress, PlanAnswer>>[0]>[1];

async function search(from: Design, to: Design, options: PlanOptions, { report, stopped }: Context): Promise<Planned> {
  const began = performance.now();
  let reported = began;
  const run = planning(from, to, options);
  for (let reply: Reply = 'on'; ;) {
    const { done, value } = run.next(reply);
    if (done) return value;
    const now = performance.now();
    if (now - reported >= BETWEEN_REPORTS) {
      report(value);
      reported = now;
      await pause();
    }
    reply = stopped() ? 'stop' : now - began > LONGEST ? 'enough' : 'on';
  }
}

async function allWays(design: Design, mode: Mode, options: PlanOptions, { stopped }: Context): Promise<Migration[]> {
  const ends = performance.now() + LONGEST;
  const ways: Migration[] = [];
  for (const way of migrations(design, mode, options, () => performance.now() > ends)) {
    ways.push(way);
    await pause();
    if (stopped()) break;
  }
  return ways;
}

serveJob<PlanRequest, PlanProgress, PlanAnswer>(async ({ ask, options, arranged }, context) => {
  if (arranged) return { planned: planArranged(arranged.from, arranged.to, arranged.works, options), ways: [] };
  switch (ask.kind) {
    case 'change':
      return { planned: await search(ask.from, ask.to, options, context), ways: [] };
    case 'maintenance':
      return { planned: planMaintenance(ask.design, ask.target, options), ways: [] };
    case 'migration': {
      const ways = await allWays(ask.design, ask.mode, options, context);
      const best = ways.find((w) => w.rule === 'least-outage') ?? ways[0];
      return { planned: best ? { ok: true, plan: best.plan } : null, ways };
    }
  }
});
