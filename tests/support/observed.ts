/** What the agents of a running design answer, read back. */
import type { Bundle, Design, Port } from '../../src/core/design';
import { bundleVerdicts, rateAt } from '../../src/core/network';
import { AnswerBook, agentAnswers, logicalNames, readSnmp } from '../../src/core/observe';
import type { Observation } from '../../src/core/observe';
import { advance, snapshotOf, startRehearsal } from '../../src/core/simulation';

/** Observations of every switch that runs, once the network stands. */
export function observedOf(design: Design, until = 45): Observation[] {
  const run = startRehearsal(design, { id: 'x', name: 'x', until, events: [] });
  if (advance(run, until * 1e6) !== 'there') throw new Error('The network does not come to rest.');
  const switches = snapshotOf(run.world).filter((s) => s.on);
  const lit = new Set(switches.flatMap((s) => [...s.lit]));
  const place = { addresses: new Map<string, string>(), uptime: 0 };
  return switches.map((s) => {
    const asked = (logical: string | null) =>
      new AnswerBook(
        agentAnswers(run.world.plan.design, s, place, (port) => lit.has(port), { community: null, logical }),
      ).answers;
    return readSnmp(asked(null), { kind: 'snmp', name: s.id, at: null }, logicalNames(s).map(asked));
  });
}

/** Settings that no management object tells, by list. */
const UNTOLD = {
  bundles: ['minActive', 'maxActive', 'minRate', 'individual', 'returnDelay', 'keepsWorking', 'key', 'shared', 'hash'],
  switches: ['ageStep', 'edgeGuard', 'edgeFilter', 'guardRecovery', 'oneWayRecovery', 'stormRecovery', 'tier', 'group'],
  ports: ['oneWay', 'oneWayInterval', 'stormLimit', 'stormAction'],
} as const;
/** Guards, and costs that hold in the CIST inside a region. */
const GUARDS = [
  'bpduGuard',
  'bpduFilter',
  'filterYields',
  'rootGuard',
  'loopGuard',
  'tcGuard',
  'silenceGuard',
  'helloTime',
  'internalCost',
] as const;

const without = <T extends object>(of: T, fields: readonly string[]): T =>
  Object.fromEntries(Object.entries(of).filter(([field]) => !fields.includes(field))) as T;

/** Without what holds in the CIST alone. */
const plain = <T extends Pick<Port | Bundle, 'instanceCost'>>(e: T): T => ({
  ...e,
  ...(e.instanceCost ? { instanceCost: without(e.instanceCost, ['0']) } : {}),
});

/** Without bundles that do not form: which members a bundle gives up for others is decided by cables that are down, too. */
function formed(design: Design): Design {
  const whole = new Set(
    bundleVerdicts(design)
      .filter((v) => v.outcome === 'forms' && v.members.every((m) => !m.miscabled))
      .map((v) => v.bundle),
  );
  const bundles = design.bundles.filter((b) => whole.has(b.id));
  return bundles.length === design.bundles.length ? design : formed({ ...design, bundles });
}

/** The design without what no object tells, so that a drawing of it can be the same in all it decides. */
export const tellable = (drawn: Design): Design => {
  const design = formed(drawn);
  return {
    ...design,
    bundles: design.bundles.map((b) => ({
      ...plain(without(b, [...UNTOLD.bundles, ...GUARDS])),
      kind: b.kind === 'own' ? ('lacp' as const) : b.kind,
    })),
    switches: design.switches.map((s) => without(s, UNTOLD.switches)),
    // A port tells the speed that its link runs at.
    ports: design.ports.map((p) => ({
      ...plain(without(p, [...UNTOLD.ports, ...GUARDS])),
      speed: rateAt(design, p.id),
    })),
  };
};
