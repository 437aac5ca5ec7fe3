/**
 * A binary heap of bridges, least {cost, rank} first. A bridge may stand in it more than once; the best counts.
 * Cost and rank share one key, which stays exact for networks of several thousand bridges at the highest cost.
 */
export class BridgeQueue {
  private key: Float64Array;
  private bridge: Int32Array;
  private size = 0;

  constructor(private readonly bridges: number) {
    this.key = new Float64Array(bridges + 16);
    this.bridge = new Int32Array(bridges + 16);
  }

  private grow(): void {
    const [key, bridge] = [new Float64Array(this.key.length * 2), new Int32Array(this.key.length * 2)];
    key.set(this.key);
    bridge.set(this.bridge);
    this.key = key;
    this.bridge = bridge;
  }

  push(bridge: number, cost: number, rank: number): void {
    if (this.size === this.key.length) this.grow();
    const key = cost * this.bridges + rank;
    let i = this.size++;
    while (i > 0) {
      const parent = (i - 1) >> 1;
      if (this.key[parent]! <= key) break;
      this.key[i] = this.key[parent]!;
      this.bridge[i] = this.bridge[parent]!;
      i = parent;
    }
    this.key[i] = key;
    this.bridge[i] = bridge;
  }

  /** The least bridge, taken out; −1 when the queue is empty. */
  pop(): number {
    if (this.size === 0) return -1;
    const least = this.bridge[0]!;
    const last = --this.size;
    const [key, bridge] = [this.key[last]!, this.bridge[last]!];
    let i = 0;
    for (let child = 1; child < last; child = 2 * i + 1) {
      if (child + 1 < last && this.key[child + 1]! < this.key[child]!) child++;
      if (key <= this.key[child]!) break;
      this.key[i] = this.key[child]!;
      this.bridge[i] = this.bridge[child]!;
      i = child;
    }
    this.key[i] = key;
    this.bridge[i] = bridge;
    return least;
  }
}
