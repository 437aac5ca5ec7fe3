/** Ranges and defaults of IEEE 802.1D-2004 clause 17.14 (table 17-2, table 17-3) and 802.1Q-2018 clause 13. */

/** Bridge priority: four bits, hence steps of 4096. */
export const BRIDGE_PRIORITY = { step: 4096, max: 61440, default: 32768 } as const;

/** Port priority: four bits, hence steps of 16. */
export const PORT_PRIORITY = { step: 16, max: 240, default: 128 } as const;

/** Port numbers fill the other twelve bits of a port identifier; 0 is no port. */
export const PORT_NUMBER = { min: 1, max: 4095 } as const;

/** VLAN identifiers that may be used: 0 is the priority tag, 4095 is reserved (802.1Q table 9-2). */
export const VLAN_ID = { min: 1, max: 4094 } as const;

/** MST instance identifiers in addition to the CIST, which is 0 (802.1Q-2018 clause 13.5). */
export const INSTANCE_ID = { min: 1, max: 4094 } as const;

/** Instances that one region may have in addition to the CIST (802.1Q-2018 clause 13.5). */
export const MOST_INSTANCES = 64;

/** Configuration name of an MST region, in octets (802.1Q-2018 clause 13.8). */
export const REGION_NAME_OCTETS = 32;

/** Revision level of an MST region: two octets (802.1Q-2018 clause 13.8). */
export const REVISION = { min: 0, max: 65535 } as const;

/** Bridges that a BPDU may cross inside a region (802.1Q-2018 table 13-5). */
export const MAX_HOPS = { min: 6, max: 40, default: 20 } as const;

/** LACP system and port priorities, two octets (802.1AX-2014 clause 6.3.2, 6.3.4). */
export const LACP_PRIORITY = { min: 0, max: 65535, default: 32768 } as const;

/** Operational keys: two octets; 0 is no key. */
export const LACP_KEY = { min: 1, max: 65535 } as const;

/** Members of a bundle that may carry traffic at a time; more wait as standby. */
export const ACTIVE_MEMBERS = { min: 1, max: 8 } as const;

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

/** Domain numbers of a pair of switches that present themselves as one; no standard, 1 to 1000 by custom. */
export const PAIR_DOMAIN = { min: 1, max: 1000 } as const;
/** Ports of the second switch of a pair are numbered on from here, so that port identifiers of the pair differ. */
export const PAIR_PORT_OFFSET = 2048;

/** Timers of spanning tree in seconds (802.1D-2004 table 17-1); 2 × (delay − 1) ≥ age ≥ 2 × (hello + 1). */
export const TIMERS = {
  helloTime: { min: 1, max: 10, default: 2 },
  maxAge: { min: 6, max: 40, default: 20 },
  forwardDelay: { min: 4, max: 30, default: 15 },
  holdCount: { min: 1, max: 10, default: 6 },
  migrateTime: { min: 3, max: 3, default: 3 },
  /** 802.1Q-2018 table 8-6. */
  ageingTime: { min: 10, max: 1_000_000, default: 300 },
} as const;
