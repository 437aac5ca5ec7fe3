/** Things that hang together, by index: each begins alone, and joining two makes one part of theirs. */
export class Parts {
  private readonly parent: Int32Array;
  constructor(size: number) {
    this.parent = Int32Array.from({ length: size }, (_, i) => i);
  }
  /** The one that stands for the part. */
  top(x: number): number {
    const { parent } = this;
    while (parent[x] !== x) x = parent[x] = parent[parent[x]!]!;
    return x;
  }
  join(a: number, b: number): void {
    this.parent[this.top(a)] = this.top(b);
  }
}
