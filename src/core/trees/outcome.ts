/** What solving a tree gives: roles of ports, roots and root path costs, by index. */

/**
 * `disputed`: designated, and discarding, since the far end takes no notice and forwards (disputed, 802.1Q-2018 clause 13.27), or
 * since a silence guard hears nothing.
 */
export const ROLES = ['none', 'root', 'designated', 'alternate', 'backup', 'disabled', 'master', 'disputed'] as const;

export type Role = (typeof ROLES)[number];

export const ROLE = {
  none: 0,
  root: 1,
  designated: 2,
  alternate: 3,
  backup: 4,
  disabled: 5,
  master: 6,
  disputed: 7,
} as const;

/** Whether a port of this role passes frames once everything has settled. */
export const forwardsRole = (role: number | undefined): boolean =>
  role === ROLE.root || role === ROLE.designated || role === ROLE.master;

export interface TreeOutcome {
  /** Place of each bridge in the order of bridge identifiers. */
  readonly rank: Int32Array;
  /** Bridge that is root of the part of the network that each bridge is in; −1 for a bridge without the tree. */
  readonly root: Int32Array;
  readonly rootPathCost: Float64Array;
  /** Root port by bridge; −1 on a root and on bridges without the tree. */
  readonly rootPort: Int32Array;
  /** Designated port by LAN; −1 on LANs without the tree. */
  readonly designatedPort: Int32Array;
  /** Index into `ROLES` by port. */
  readonly role: Uint8Array;
  /** LANs on which the word of the root is too old, or has no hop left, for all but its sender; absent where there are none. */
  readonly spent?: readonly number[];
  /** Ports that a silence guard holds back, and the outcome without that; absent where there are none. */
  readonly silent?: readonly number[];
  readonly bare?: TreeOutcome;
  /**
   * Where a tree of one VLAN and the common tree are one: bridges whose way to the root leads into the other, as roots of their part, with
   * the port by which it does; absent in any other tree.
   */
  readonly joined?: ReadonlyMap<number, number>;
  /** Of the CIST only. */
  readonly cist?: CistPart;
}

/** What the vectors of the CIST hold in addition to root and cost. */
export interface CistPart {
  readonly external: Float64Array;
  readonly internal: Float64Array;
  /** Regional root by bridge; a bridge without MSTP is its own. */
  readonly regionalRoot: Int32Array;
  readonly region: Int32Array;
  /** Region of each LAN: that of its designated bridge; −1 when that is no MST bridge. */
  readonly lanRegion: Int32Array;
}

export interface CistOutcome extends TreeOutcome {
  readonly cist: CistPart;
}
