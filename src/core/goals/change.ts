/** What became of goals between two states of a network. */
import type { CheckedGoal } from './check';
import { count } from '../standard';

export interface GoalChange {
  /** How many are met afterwards, and how many there are. */
  readonly met: number;
  readonly of: number;
  /** Met before, and broken or void afterwards. */
  readonly lost: readonly CheckedGoal[];
  /** How many were broken before and are met afterwards, or are broken as before. */
  readonly mended: number;
  readonly stillBroken: number;
}

/** The goals are those that there are afterwards; one that was not there before is neither lost nor mended. */
export function goalChange(before: readonly CheckedGoal[], after: readonly CheckedGoal[]): GoalChange {
  const was = new Map(before.map((c) => [c.goal.id, c.state]));
  const now = (state: CheckedGoal['state'], then: CheckedGoal['state']) =>
    after.filter((c) => c.state === state && was.get(c.goal.id) === then).length;
  return {
    met: after.filter((c) => c.state === 'met').length,
    of: after.length,
    lost: after.filter((c) => c.state !== 'met' && was.get(c.goal.id) === 'met'),
    mended: now('met', 'broken'),
    stillBroken: now('broken', 'broken'),
  };
}

/** `all 6 goals are met`, `3 of 6 goals are met` */
function holding({ met, of }: GoalChange): string {
  if (of === 1) return met === 1 ? 'the goal is met' : 'the goal is not met';
  return met === of ? `all ${of} goals are met` : `${met} of ${of} goals are met`;
}

/** `3 of 6 goals are met; 1 was broken before` */
export function goalChangeWords(change: GoalChange): string {
  const { mended, stillBroken } = change;
  const [was, is] = mended === 1 ? ['was', 'is'] : ['were', 'are'];
  return [
    holding(change),
    mended > 0 && `${mended} that ${was} broken before ${is} met`,
    stillBroken > 0 && `${count(stillBroken, 'is', 'are')} broken as before`,
  ]
    .filter(Boolean)
    .join('; ');
}
