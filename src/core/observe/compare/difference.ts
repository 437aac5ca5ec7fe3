/** One thing in which an observed network and a design differ. */
export const VERDICTS = ['differs', 'missing', 'unexpected', 'not-observed'] as const;
export type Verdict = (typeof VERDICTS)[number];

export interface Difference {
  /** Switch, port, bundle or link, in words. */
  readonly device: string;
  readonly field: string;
  /** Null for not there. */
  readonly designed: string | null;
  readonly observed: string | null;
  readonly verdict: Verdict;
  /** Ids in the design, where it has them. */
  readonly switch: string | null;
  readonly element: string | null;
  readonly kind: 'switch' | 'port' | 'bundle' | 'link' | 'vlan' | 'tree';
}
