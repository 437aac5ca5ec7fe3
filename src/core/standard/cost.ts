/** Port path costs by speed, on both scales (802.1D-1998 table 8-5; 802.1D-2004 table 17-3). */

export type CostScale = 'short' | 'long';

export const COST_RANGE: Record<CostScale, { min: number; max: number }> = {
  short: { min: 1, max: 65535 },
  long: { min: 1, max: 200000000 },
};

/** 16-bit table: rate in Mb/s against cost. The standard has single links alone; rates of bundles are those in use in the field. */
const SHORT_TABLE: readonly (readonly [rate: number, cost: number])[] = [
  [4, 250],
  [10, 100],
  [16, 62],
  [100, 19],
  [200, 12],
  [300, 9],
  [400, 8],
  [500, 7],
  [600, 6],
  [700, 5],
  [800, 5],
  [1000, 4],
  [2000, 3],
  [10000, 2],
  [20000, 1],
];

const LONG_DIVIDEND = 20_000_000;

function longCost(rate: number): number {
  return Math.min(COST_RANGE.long.max, Math.max(1, Math.floor(LONG_DIVIDEND / rate)));
}

/**
 * Between two rates of the table the cost is read off a straight line of log(cost) over log(rate), rounded to
 * nearest. Above 20 Gb/s it is 1.
 */
function shortCost(rate: number): number {
  const [firstRate, firstCost] = SHORT_TABLE[0]!;
  if (rate <= firstRate) return firstCost;
  for (let i = 1; i < SHORT_TABLE.length; i++) {
    const [rate0, cost0] = SHORT_TABLE[i - 1]!;
    const [rate1, cost1] = SHORT_TABLE[i]!;
    if (rate > rate1) continue;
    const along = Math.log(rate / rate0) / Math.log(rate1 / rate0);
    return Math.max(1, Math.round(Math.exp(Math.log(cost0) + along * Math.log(cost1 / cost0))));
  }
  return 1;
}

/** Default port path cost of a rate in Mb/s (above 0) on a scale; for a bundle, of the summed rate of its members. */
export function defaultPathCost(rate: number, scale: CostScale): number {
  return scale === 'long' ? longCost(rate) : shortCost(rate);
}
