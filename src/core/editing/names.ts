/** Names and addresses for what comes into being. */
import type { Design } from '../design';
import { NAME_LENGTH } from '../messages';
import { canonicalMac, macToNumber, numberToMac } from '../standard';

/** `closet-7` after `closet-6`, `gate-2` after `gate`: the next name of a row that is free. Counts what it gave as taken. */
export class Names {
  private readonly taken: Set<string>;
  constructor(taken: Iterable<string>) {
    this.taken = new Set(taken);
  }

  take(name: string): void {
    this.taken.add(name);
  }

  /** The name itself when it is free, else the next one of its row. */
  claim(wish: string): string {
    let name = wish;
    if (this.taken.has(name)) {
      const match = /^(.*?)(\d+)$/.exec(wish);
      const stem = (match ? match[1]! : `${wish}-`).slice(0, NAME_LENGTH - 6);
      const width = match ? match[2]!.length : 1;
      let n = match && match[2]!.length < 16 ? Number(match[2]) + 1 : 2;
      do name = `${stem}${String(n++).padStart(width, '0')}`;
      while (this.taken.has(name));
    }
    this.taken.add(name);
    return name;
  }
}

/** Addresses set aside for documentation (RFC 7042): 00-00-5E-00-53-00 to -FF. */
const DOCUMENTATION = macToNumber('00:00:5e:00:53:00');
/** From here on when those are used up: locally administered, so that no real switch has one. */
const LOCAL = macToNumber('02:00:5e:00:00:00');

/** Stand-in base addresses for switches whose own are not known yet. Counts what it gave as taken. */
export class Macs {
  private readonly taken: Set<string>;
  private documentation = DOCUMENTATION + 1;
  private local = LOCAL;
  constructor(design: Pick<Design, 'switches'>) {
    this.taken = new Set(design.switches.map((s) => s.mac));
  }

  take(mac: string): void {
    this.taken.add(mac);
  }

  next(): string {
    for (;;) {
      const mac = numberToMac(this.documentation <= DOCUMENTATION + 0xff ? this.documentation++ : this.local++);
      if (this.taken.has(mac)) continue;
      this.taken.add(mac);
      return mac;
    }
  }

  /** An address in any usual spelling, canonical; the text itself when it is none, for the schema to refuse. */
  static read(text: string): string {
    return canonicalMac(text) ?? text;
  }
}
