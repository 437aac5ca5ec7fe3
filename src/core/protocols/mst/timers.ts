/**
 * Port timers machine (802.1Q-2018 13.30; 802.1D-2004 17.22), and where timers stand: those of all ports of a bridge
 * side by side in one array, so that a second that passes reads a few hundred octets and not every port.
 */

/**
 * Slots of a port: whether it is enabled, what it has to say, what may be repeated, in which sets of ports it is, and its
 * timers in whole seconds.
 */
export const PORT = {
  enabled: 0,
  news: 1,
  unmoved: 2,
  helloWhen: 3,
  mdelayWhile: 4,
  edgeDelayWhile: 5,
  txCount: 6,
  awake: 7,
  turn: 8,
  touched: 9,
  silenceWhile: 10,
} as const;
const PORT_SLOTS = 11;
/** Bits of what a port has to say: newInfo and newInfoMsti. */
export const NEWS = { none: 0, info: 1, msti: 2 } as const;
/** Bits of what has not moved since the port was woken: what it heard last, and what it says. */
export const UNMOVED = { heard: 1, said: 2 } as const;
/** Slots of each tree behind them: which timers its role holds still, and its timers in whole seconds. */
const TREE = { held: 0, tcWhile: 1, fdWhile: 2, rcvdInfoWhile: 3, rrWhile: 4, rbWhile: 5 } as const;
const TREE_SLOTS = 6;
/** Slot of rcvdInfoWhile of a tree. */
export const RESTARTS = (tree: number): number => PORT_SLOTS + TREE_SLOTS * tree + TREE.rcvdInfoWhile;

/** What a role starts again at once while it lasts (ROOT_PORT, ALTERNATE_PORT, BACKUP_PORT) stands still. */
export const HELD = { none: 0, rrWhile: 1, fdWhile: 2, rbWhile: 4 } as const;

/** Timers of all ports of a bridge. */
export interface TimerBank {
  slots: Uint16Array;
  /** Slots a port. */
  readonly stride: number;
}

export function timerBank(ports: number, trees: number): TimerBank {
  const stride = PORT_SLOTS + TREE_SLOTS * trees;
  return { slots: new Uint16Array(ports * stride), stride };
}

/** Gives a class a number by name for each slot; `first` of an instance is where its own slots begin. */
function standIn(prototype: object, names: Readonly<Record<string, number>>): void {
  for (const [name, slot] of Object.entries(names))
    Object.defineProperty(prototype, name, {
      get(this: Slots) {
        return this.slots[this.first + slot];
      },
      set(this: Slots, to: number) {
        this.slots[this.first + slot] = to;
      },
    });
}

class Slots {
  constructor(
    public slots: Uint16Array,
    readonly first: number,
  ) {}
}

/** Timers that all trees of a port share, by the names of the standard. */
export class PortTimers extends Slots {
  declare helloWhen: number;
  declare mdelayWhile: number;
  declare edgeDelayWhile: number;
  declare txCount: number;
  /** Until a port with a silence guard is held back; 0 too where it has none. */
  declare silenceWhile: number;
  declare unmoved: number;
  /** 1 while the port is enabled. */
  declare protected enabled: number;
  /** newInfo and newInfoMsti, one bit each. */
  declare protected news: number;
  constructor({ slots, stride }: TimerBank, index: number) {
    super(slots, index * stride);
  }
}
standIn(PortTimers.prototype, PORT);

/** Timers of a tree at a port, by the names of the standard. */
export class TreeTimers extends Slots {
  declare tcWhile: number;
  declare fdWhile: number;
  declare rcvdInfoWhile: number;
  declare rrWhile: number;
  declare rbWhile: number;
  /** Which of them the role holds still. */
  declare protected held: number;
  constructor({ slots, stride }: TimerBank, index: number, tree: number) {
    super(slots, index * stride + PORT_SLOTS + TREE_SLOTS * tree);
  }
}
standIn(TreeTimers.prototype, TREE);

/**
 * One second passes at a port, by its index. Whether a timer ran out, or no more than a BPDU is due or may go that was
 * held back: every condition of the machines asks of a timer only whether it is zero.
 */
export function tickPort({ slots, stride }: TimerBank, index: number): 'timer' | 'hello' | null {
  const base = index * stride;
  if (slots[base + PORT.enabled] === 0) return null;
  let timer = run(slots, base + PORT.mdelayWhile);
  timer = run(slots, base + PORT.edgeDelayWhile) || timer;
  timer = run(slots, base + PORT.silenceWhile) || timer;
  let hello = run(slots, base + PORT.helloWhen);
  if (slots[base + PORT.txCount]! > 0) {
    slots[base + PORT.txCount]!--;
    hello ||= slots[base + PORT.news] !== NEWS.none;
  }
  for (let tree = base + PORT_SLOTS; tree < base + stride; tree += TREE_SLOTS) {
    const held = slots[tree + TREE.held]!;
    timer = run(slots, tree + TREE.tcWhile) || timer;
    timer = run(slots, tree + TREE.rcvdInfoWhile) || timer;
    if (!(held & HELD.rrWhile)) timer = run(slots, tree + TREE.rrWhile) || timer;
    if (!(held & HELD.fdWhile)) timer = run(slots, tree + TREE.fdWhile) || timer;
    if (!(held & HELD.rbWhile)) timer = run(slots, tree + TREE.rbWhile) || timer;
  }
  return timer ? 'timer' : hello ? 'hello' : null;
}

/** Counts a timer down; whether it ran out with this second. */
function run(slots: Uint16Array, at: number): boolean {
  const left = slots[at]!;
  if (left === 0) return false;
  slots[at] = left - 1;
  return left === 1;
}
