/** What is due next: by time, and among things due at the same time in the order in which they were put in. */
export class EventQueue<T> {
  private readonly times: number[] = [];
  private readonly orders: number[] = [];
  private readonly items: T[] = [];
  private order = 0;

  get size(): number {
    return this.items.length;
  }

  /** Time of the next item in microseconds; Infinity when there is none. */
  get next(): number {
    return this.times.length > 0 ? this.times[0]! : Infinity;
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
