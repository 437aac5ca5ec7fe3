/** What a loop does to the network that it is in. */
import type { LoopSpan } from './recorder';

/** Bits that the shortest frame takes on a cable, with preamble and gap (802.3 clause 4). */
const SHORTEST_FRAME_BITS = 84 * 8;

export interface LoopEffect {
  /** Microseconds that one loop takes, and Mb/s of its slowest link. */
  readonly around: number;
  readonly rate: number;
  /** Mb/s of broadcast that storm limits leave; null where they leave all of it. */
  readonly limited: number | null;
  /** Frames a second of the shortest kind that fill its slowest link. */
  readonly full: number;
  /** Copies of one broadcast that each host of the VLAN receives in a second: it loops both ways. */
  readonly copies: number;
  /** Times a second that the sender's address moves from port to port, on every switch of the loop. */
  readonly moves: number;
  /** Broadcasts after which the slowest link is full; 1 where copies multiply. */
  readonly broadcasts: number;
  /** Microseconds from one broadcast until it is full, where copies multiply by themselves. */
  readonly fullAfter: number | null;
}

export function loopEffect({ rate, limited, around, turns, ports }: LoopSpan): LoopEffect {
  const full = Math.round(((limited ?? rate) * 1e6) / SHORTEST_FRAME_BITS);
  const rounds = 1e6 / Math.max(1, around);
  // Out of a hub with a loop it comes back one way only.
  const ways = ports.length > 1 ? 2 : 1;
  const copies = Math.min(full, Math.round(ways * rounds));
  const doublings = Math.max(0, Math.ceil(Math.log2(full / (ways * rounds))));
  return {
    around,
    rate,
    limited,
    full,
    copies,
    moves: copies,
    broadcasts: turns > 1 ? 1 : Math.max(1, Math.ceil(full / copies)),
    fullAfter: turns > 1 ? doublings * around : null,
  };
}
