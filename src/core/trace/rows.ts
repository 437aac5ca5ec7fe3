/** Rows of numbers, one behind the other in one array that grows by doubling. */
export class Rows<A extends Int32Array | Float64Array | Uint8Array> {
  array: A;
  count = 0;
  constructor(
    private readonly make: new (length: number) => A,
    /** Numbers a row. */
    readonly width: number,
  ) {
    this.array = new make(256 * width);
  }

  /** Where a new row of zeros begins. */
  next(): number {
    const at = this.count * this.width;
    this.count++;
    if (at + this.width > this.array.length) this.grow();
    return at;
  }

  private grow(): void {
    const larger = new this.make(this.array.length * 2);
    larger.set(this.array);
    this.array = larger;
  }

  /** The rows that there are, and nothing behind them. */
  done(): A {
    return this.array.slice(0, this.count * this.width) as A;
  }
}

/** Octets one behind the other. */
export class OctetPool {
  private array = new Uint8Array(4096);
  end = 0;

  add(octets: Uint8Array): void {
    while (this.end + octets.length > this.array.length) {
      const larger = new Uint8Array(this.array.length * 2);
      larger.set(this.array);
      this.array = larger;
    }
    this.array.set(octets, this.end);
    this.end += octets.length;
  }

  done(): Uint8Array {
    return this.array.slice(0, this.end);
  }
}

/** Words by number: each stands once. */
export class Words {
  readonly list: string[] = [];
  private readonly numbers = new Map<string, number>();

  numberOf(word: string): number {
    let number = this.numbers.get(word);
    if (number === undefined) {
      number = this.list.push(word) - 1;
      this.numbers.set(word, number);
    }
    return number;
  }
}
