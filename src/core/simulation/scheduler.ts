const MOST_TAKEN = 4096;

/** What is due next: by time, and among things due at the same time in the order in which they were put in. */
export class EventQueue<T> {
  private readonly times: number[] = [];
  private readonly orders: number[] = [];
  private readonly items: T[] = [];
  private order = 0;
  /** Things that came in the order of their times, apart from the heap: frames, which all take equally long. */
  private lineTimes: number[] = [];
  private lineOrders: number[] = [];
  private line: T[] = [];
  private head = 0;

  get size(): number {
    return this.items.length + this.line.length - this.head;
  }

  /** Time of the next item in microseconds; Infinity when there is none. */
  get next(): number {
    const first = this.times.length > 0 ? this.times[0]! : Infinity;
    return this.head < this.line.length ? Math.min(first, this.lineTimes[this.head]!) : first;
  }

  /** As `push`, at no cost where nothing put in this way is due later. */
  append(time: number, item: T): void {
    if (this.head < this.line.length && this.lineTimes[this.line.length - 1]! > time) return this.push(time, item);
    this.lineTimes.push(time);
    this.lineOrders.push(this.order++);
    this.line.push(item);
  }

  push(time: number, item: T): void {
    let i = this.items.length;
    this.times.push(time);
    this.orders.push(this.order++);
    this.items.push(item);
    while (i > 0) {
      const parent = (i - 1) >> 1;
      if (!this.before(i, parent)) break;
      this.swap(i, parent);
      i = parent;
    }
  }

  /** Takes the next item out; only while there is one. */
  pop(): T {
    if (this.head === this.line.length) return this.popHeap();
    const time = this.lineTimes[this.head]!;
    const first = this.times.length > 0 ? this.times[0]! : Infinity;
    if (first < time || (first === time && this.orders[0]! < this.lineOrders[this.head]!)) return this.popHeap();
    const item = this.line[this.head++]!;
    if (this.head === this.line.length || this.head > MOST_TAKEN) this.drop();
    return item;
  }

  /** Lets go of what the line has given out. */
  private drop(): void {
    this.lineTimes = this.lineTimes.slice(this.head);
    this.lineOrders = this.lineOrders.slice(this.head);
    this.line = this.line.slice(this.head);
    this.head = 0;
  }

  private popHeap(): T {
    const item = this.items[0]!;
    const last = this.items.length - 1;
    this.swap(0, last);
    this.times.pop();
    this.orders.pop();
    this.items.pop();
    for (let i = 0; ;) {
      let least = i;
      for (const child of [2 * i + 1, 2 * i + 2]) if (child < last && this.before(child, least)) least = child;
      if (least === i) return item;
      this.swap(i, least);
      i = least;
    }
  }

  private before(i: number, j: number): boolean {
    return (
      this.times[i]! - this.times[j]! < 0 || (this.times[i] === this.times[j] && this.orders[i]! < this.orders[j]!)
    );
  }

  private swap(i: number, j: number): void {
    [this.times[i], this.times[j]] = [this.times[j]!, this.times[i]!];
    [this.orders[i], this.orders[j]] = [this.orders[j]!, this.orders[i]!];
    [this.items[i], this.items[j]] = [this.items[j]!, this.items[i]!];
  }
}
