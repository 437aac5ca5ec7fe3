/** Some ports of a bridge by their index, and between which they lie: most often it is one of many. */
import type { PORT, TimerBank } from './timers';

const NONE_FROM = 0x3fffffff;

export class PortSet {
  from = NONE_FROM;
  to = -1;

  /** `slot`: where a port notes that it is in the set, beside its timers. */
  constructor(
    private readonly bank: TimerBank,
    private readonly slot: typeof PORT.awake | typeof PORT.turn | typeof PORT.touched,
  ) {}
  add(index: number): void {
    this.bank.slots[index * this.bank.stride + this.slot] = 1;
    if (index < this.from) this.from = index;
    if (index > this.to) this.to = index;
  }
  has(index: number): boolean {
    return this.bank.slots[index * this.bank.stride + this.slot] !== 0;
  }
  /** Takes a port out; whether it was in. `from` and `to` stay until `emptied`. */
  take(index: number): boolean {
    const { slots, stride } = this.bank;
    const at = index * stride + this.slot;
    if (slots[at] === 0) return false;
    slots[at] = 0;
    return true;
  }
  /** For when each member has been taken out. */
  emptied(): void {
    this.from = NONE_FROM;
    this.to = -1;
  }
}
