/** What charts of bars and lines look like where a pointer rests on them. */
export const TOOLTIP = {
  cursor: { fill: 'var(--accent-wash)' },
  contentStyle: { background: 'var(--sheet)', border: '1px solid var(--ink-3)', fontSize: 12 },
  labelStyle: { color: 'var(--ink)' },
  itemStyle: { color: 'var(--ink)' },
} as const;
