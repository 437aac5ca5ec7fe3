/** A plan as programs read it. */
import type { Design } from '../design';
import { deviceName } from './checks';
import type { ChangePlan, PlanStep } from './plan';
import { longestOf } from './rank';
import { setLines } from './set-lines';
import { consoleNames } from './step-words';

const hostName = (design: Design, id: string): string => design.hosts.find((h) => h.id === id)?.name ?? id;

/** Seconds to the microsecond; null where contact does not come back in the step. */
const seconds = (value: number | null): number | null => (value === null ? null : Math.round(value * 1e6) / 1e6);

function stepJson({ work, before, after, set, inverse, moved, measured, see }: PlanStep) {
  return {
    device: deviceName(before, after, work.device),
    ...(work.other === null ? {} : { with: deviceName(before, after, work.other) }),
    kind: work.kind,
    set,
    outages: [
      ...measured.vlans.flatMap((o) => o.vlans.map((vlan) => ({ vlan, seconds: seconds(o.seconds) }))),
      ...measured.pairs.map(({ pair, seconds: s }) => ({
        pair: [hostName(before, pair.from), hostName(before, pair.to)],
        vlan: pair.vlan,
        seconds: seconds(s),
      })),
    ],
    moves: moved.flatMap(({ tree, ports }) =>
      ports.map((p) => ({
        tree,
        switch: deviceName(before, after, p.switch),
        port: portName(before, after, p.id),
        from: p.before,
        to: p.after,
      })),
    ),
    check: see,
    inverse: setLines(after, before, inverse),
  };
}

function portName(before: Design, after: Design, id: string): string {
  for (const d of [after, before]) {
    const found = d.ports.find((p) => p.id === id) ?? d.bundles.find((b) => b.id === id);
    if (found) return found.name;
  }
  return id;
}

/** The whole plan: steps in their order, figures in seconds. */
export function planJson(plan: ChangePlan) {
  const { steps, exact } = plan;
  const each = steps.map((s) => longestOf(s.measured));
  return {
    steps: steps.map(stepJson),
    worstOutage: seconds(Math.max(0, ...each)),
    totalOutage: seconds(each.reduce((a, b) => a + b, 0)),
    exact,
    unreachable: consoleNames(plan),
    constraints: plan.constraints.map((c) => c.sentence),
  };
}
