/** Rules about bundles, and about pairs of switches that act as one end of them. */
import { ACTIVE_MEMBERS, PAIR_PORT_OFFSET } from '../../standard';
import type { Fault } from '../fault';
import { bundlesOf, portById, portsOf, switchById } from '../look-ups';
import type { Rule, RuleEntry } from './rule';
import { documentMessages as say } from '../../messages';

const memberCounts: Rule = (design) =>
  design.bundles.flatMap((b, i): Fault[] => {
    const max = b.maxActive ?? ACTIVE_MEMBERS.max;
    const rate = b.members.reduce((sum, id) => sum + (portById(design, id)?.speed ?? 0), 0);
    if (b.minRate !== undefined && b.minRate > rate)
      return [
        {
          code: 'min-rate-above-members',
          path: ['bundles', i, 'minRate'],
          sentence: say.minRateAboveMembers(b.name, b.minRate, rate),
        },
      ];
    if (b.minActive === undefined) return [];
    const path = ['bundles', i, 'minActive'];
    if (b.minActive > max)
      return [{ code: 'min-above-max', path, sentence: say.minAboveMax(b.name, b.minActive, max) }];
    return b.minActive > b.members.length
      ? [{ code: 'min-above-members', path, sentence: say.minAboveMembers(b.name, b.minActive, b.members.length) }]
      : [];
  });

const pairs: Rule = (design) => {
  const faults: Fault[] = [];
  const taken = new Set<string>();
  const domains = new Set<number>();
  design.pairs.forEach((pair, i) => {
    pair.switches.forEach((id, j) => {
      const path = ['pairs', i, 'switches', j];
      const s = switchById(design, id);
      if (!s) faults.push({ code: 'no-switch', path, sentence: say.noSuch('switch', id) });
      else if (j === 1 && pair.switches[0] === id)
        faults.push({ code: 'pair-of-one', path, sentence: say.pairOfOne(s.name) });
      else if (taken.has(id)) faults.push({ code: 'pair-taken', path, sentence: say.pairTaken(s.name) });
      taken.add(id);
      const high = [...portsOf(design, id), ...bundlesOf(design, id)].find((p) => p.number >= PAIR_PORT_OFFSET);
      if (high)
        faults.push({
          code: 'pair-port-number',
          path,
          sentence: say.pairPortNumber(`'${high.name}' of ${s?.name}`),
        });
    });
    if (domains.has(pair.domain))
      faults.push({ code: 'domain-taken', path: ['pairs', i, 'domain'], sentence: say.domainTaken(pair.domain) });
    domains.add(pair.domain);
  });
  const numbers = new Set<string>();
  design.bundles.forEach((b, i) => {
    if (b.shared === undefined) return;
    const path = ['bundles', i, 'shared'];
    if (!taken.has(b.switch)) faults.push({ code: 'shared-alone', path, sentence: say.sharedAlone(b.name) });
    const key = `${b.switch}\n${b.shared}`;
    if (numbers.has(key)) faults.push({ code: 'shared-twice', path, sentence: say.sharedTwice(b.name, b.shared) });
    numbers.add(key);
  });
  return faults;
};

export const bundleRules: readonly RuleEntry[] = [
  {
    after: ['bundle.*', 'bundle.minActive', 'bundle.maxActive', 'bundle.members', 'bundle.minRate', 'port.speed'],
    rule: memberCounts,
  },
  {
    after: [
      'pair.*',
      'pair.switches',
      'pair.domain',
      'switch.*',
      'bundle.*',
      'bundle.shared',
      'bundle.switch',
      'bundle.number',
      'port.*',
      'port.number',
    ],
    rule: pairs,
  },
];
