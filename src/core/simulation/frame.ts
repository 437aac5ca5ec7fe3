/** Frames on cables. */
import { bpduEnvelope, bpduFrame, openEnvelope, vlanBpduFrame } from '../protocols/frames';
import type { Envelope } from '../protocols/frames';
import type { FrameKind, SentMessage } from '../trace';

/** A frame on a cable. */
export interface Frame {
  readonly octets: Uint8Array;
  /** What it holds. */
  readonly opened: Envelope;
  /** The BPDU or LACPDU in it. */
  readonly payload: Uint8Array;
}

/** A frame that is opened when a receiver looks into it. */
export class PlainFrame implements Frame {
  private inside: Envelope | null = null;
  constructor(readonly octets: Uint8Array) {}
  get opened(): Envelope {
    return (this.inside ??= openEnvelope(this.octets));
  }
  get payload(): Uint8Array {
    return this.opened.payload;
  }
}

const kindOf = (bpdu: Uint8Array): FrameKind =>
  bpdu[3] === 0x80 ? 'notification' : bpdu[3] === 0 ? 'config' : bpdu[2]! >= 3 ? 'mst' : 'rst';

/** The frame of a BPDU; the envelope is written only when the frame is needed as a whole. */
export class BpduFrame implements Frame, SentMessage {
  readonly kind: FrameKind;
  saying = -1;
  private written: Uint8Array | null = null;
  private again: BpduFrame | null = null;

  /**
   * `from`: physical port; `bpdu`: as the bridge says it, and `payload`: as the port does; `vlan`: whose tree it is of;
   * `named`: that VLAN where it travels as one of a tree per VLAN.
   */
  constructor(
    readonly from: string,
    private readonly source: number,
    readonly bpdu: Uint8Array,
    readonly payload: Uint8Array,
    readonly vlan: number | null,
    private readonly named: number | null,
    private readonly tagged: boolean,
  ) {
    this.kind = kindOf(payload);
  }

  /** The same BPDU of VLAN 1 in the form that those of other VLANs have. */
  ofVlanOne(tagged: boolean): BpduFrame {
    return (this.again ??= new BpduFrame(this.from, this.source, this.bpdu, this.payload, 1, 1, tagged));
  }
  get opened(): Envelope {
    return bpduEnvelope(this.payload, this.named, this.tagged);
  }
  get octets(): Uint8Array {
    const { source, payload, named, tagged } = this;
    return (this.written ??=
      named === null ? bpduFrame(source, payload) : vlanBpduFrame(source, payload, named, tagged));
  }
}
