/** Ranges and defaults of IEEE 802.1D-2004 clause 17.14 (table 17-2, table 17-3) and 802.1Q-2018 clause 13. */

/** Bridge priority: four bits, hence steps of 4096. */
export const BRIDGE_PRIORITY = { step: 4096, max: 61440, default: 32768 } as const;

/** Port priority: four bits, hence steps of 16. */
export const PORT_PRIORITY = { step: 16, max: 240, default: 128 } as const;

/** Port numbers fill the other twelve bits of a port identifier; 0 is no port. */
export const PORT_NUMBER = { min: 1, max: 4095 } as const;

/** VLAN identifiers that may be used: 0 is the priority tag, 4095 is reserved (802.1Q table 9-2). */
export const VLAN_ID = { min: 1, max: 4094 } as const;

/** The sixteen legal bridge priorities, best first. */
export const BRIDGE_PRIORITIES: readonly number[] = Array.from({ length: 16 }, (_, i) => i * BRIDGE_PRIORITY.step);

/** The sixteen legal port priorities, best first. */
export const PORT_PRIORITIES: readonly number[] = Array.from({ length: 16 }, (_, i) => i * PORT_PRIORITY.step);

/** Speeds that the interface offers, Mb/s. Any other whole number is legal too. */
export const COMMON_SPEEDS: readonly number[] = [10, 100, 1000, 2500, 5000, 10000, 25000, 40000, 100000, 400000];

/** The legal value nearest to a wrong one; the lower of two that are equally near. */
export function nearestLegal(value: number, range: { step: number; max: number }): number {
  const down = Math.floor(value / range.step) * range.step;
  const nearest = value - down > range.step / 2 ? down + range.step : down;
  return Math.min(range.max, Math.max(0, nearest));
}
