/**
 * A binary heap of bridges by {external root path cost, rank of the regional root, internal root path cost, rank of
 * the bridge}, least first: the order of the CIST priority vector. A bridge may stand in it more than once.
 */
const FIELDS = 4;

export class VectorQueue {
  private keys = new Float64Array(64 * FIELDS);
  private bridges = new Int32Array(64);
  private size = 0;

  private less(i: number, j: number): boolean {
    for (let f = 0; f < FIELDS; f++) {
      const order = this.keys[i * FIELDS + f]! - this.keys[j * FIELDS + f]!;
      if (order !== 0) return order < 0;
    }
    return false;
  }

  private swap(i: number, j: number): void {
    for (let f = 0; f < FIELDS; f++) {
      const key = this.keys[i * FIELDS + f]!;
      this.keys[i * FIELDS + f] = this.keys[j * FIELDS + f]!;
      this.keys[j * FIELDS + f] = key;
    }
    const bridge = this.bridges[i]!;
    this.bridges[i] = this.bridges[j]!;
    this.bridges[j] = bridge;
  }

  push(bridge: number, external: number, regionalRoot: number, internal: number, rank: number): void {
    if (this.size === this.bridges.length) {
      const [keys, bridges] = [new Float64Array(this.keys.length * 2), new Int32Array(this.size * 2)];
      keys.set(this.keys);
      bridges.set(this.bridges);
      this.keys = keys;
      this.bridges = bridges;
    }
    let i = this.size++;
    this.keys.set([external, regionalRoot, internal, rank], i * FIELDS);
    this.bridges[i] = bridge;
    for (let parent = (i - 1) >> 1; i > 0 && this.less(i, parent); parent = (i - 1) >> 1) {
      this.swap(i, parent);
      i = parent;
    }
  }

  /** The least bridge, taken out; −1 when the queue is empty. */
  pop(): number {
    if (this.size === 0) return -1;
    const least = this.bridges[0]!;
    this.swap(0, --this.size);
    for (let i = 0, child = 1; child < this.size; child = 2 * i + 1) {
      if (child + 1 < this.size && this.less(child + 1, child)) child++;
      if (!this.less(child, i)) break;
      this.swap(i, child);
      i = child;
    }
    return least;
  }
}
