/** Plans that have to be found. */
import type { Design } from '@/core/design';
import { planChange } from '@/core/plan';
import type { ChangePlan, PlanOptions } from '@/core/plan';

export function planned(from: Design, to: Design, options: PlanOptions = {}): ChangePlan {
  const found = planChange(from, to, options);
  if (!found.ok) throw new Error(found.sentence);
  return found.plan;
}
