/** What rules between elements are made of. */
import type { Fault } from '../fault';
import type { Design, Kind } from '../schema';

export type Rule = (design: Design) => Fault[];

/** What a change touched: `port.cost` for one field, `port.*` for elements added or removed, `settings`. */
export type Touch = `${Kind}.${string}` | 'settings';

export interface RuleEntry {
  /** What can break the rule. */
  readonly after: readonly Touch[];
  readonly rule: Rule;
}
