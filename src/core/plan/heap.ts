/** What comes first by a comparison, again and again. */
export class Heap<T> {
  private readonly items: T[] = [];
  constructor(private readonly compare: (a: T, b: T) => number) {}

  push(item: T): void {
    const { items, compare } = this;
    let at = items.length;
    items.push(item);
    while (at > 0) {
      const parent = (at - 1) >> 1;
      if (compare(items[parent]!, item) <= 0) break;
      items[at] = items[parent]!;
      at = parent;
    }
    items[at] = item;
  }

  pop(): T | undefined {
    const { items, compare } = this;
    const [first] = items;
    const last = items.pop();
    if (items.length === 0 || last === undefined) return first;
    let at = 0;
    for (let child = 1; child < items.length; child = 2 * at + 1) {
      if (child + 1 < items.length && compare(items[child + 1]!, items[child]!) < 0) child++;
      if (compare(last, items[child]!) <= 0) break;
      items[at] = items[child]!;
      at = child;
    }
    items[at] = last;
    return first;
  }
}
