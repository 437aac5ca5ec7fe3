/** Rules about bundles: as many members as the minimum asks for. */
import { ACTIVE_MEMBERS } from '../standard';
import type { Fault } from './fault';
import type { Rule, RuleEntry } from './rule';
import { wording } from './wording';

const memberCounts: Rule = ({ bundles }) =>
  bundles.flatMap((b, i): Fault[] => {
    const max = b.maxActive ?? ACTIVE_MEMBERS.max;
    if (b.minActive === undefined) return [];
    const path = ['bundles', i, 'minActive'];
    if (b.minActive > max)
      return [{ code: 'min-above-max', path, sentence: wording.minAboveMax(b.name, b.minActive, max) }];
    return b.minActive > b.members.length
      ? [{ code: 'min-above-members', path, sentence: wording.minAboveMembers(b.name, b.minActive, b.members.length) }]
      : [];
  });

export const bundleRules: readonly RuleEntry[] = [
  { after: ['bundle.*', 'bundle.minActive', 'bundle.maxActive', 'bundle.members'], rule: memberCounts },
];
