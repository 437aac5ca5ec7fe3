/** What a rehearsal leaves behind: lanes of ports, roots and contacts over time, frames, and what happened. */
import { sameOctets } from '../frames';
import type { StpState } from '../machines';

export type PortState = 'disabled' | 'discarding' | 'listening' | 'learning' | 'forwarding' | 'guarded';
export type RunRole = 'disabled' | 'root' | 'designated' | 'alternate' | 'backup' | 'master';

/** All times of a trace are microseconds from the start of the rehearsal. */
export interface PortSpan {
  readonly at: number;
  readonly role: RunRole;
  readonly state: PortState;
}
export interface PortLane {
  readonly tree: string;
  readonly port: string;
  readonly spans: readonly PortSpan[];
}
export interface RootSpan {
  readonly at: number;
  /** Switches that take themselves for the root. */
  readonly roots: readonly string[];
}
export interface ContactSpan {
  readonly at: number;
  readonly ok: boolean;
  /** Logical ports in the order in which a frame passes them, one way; empty while there is no contact. */
  readonly path: readonly string[];
  /** Copies of one frame that arrive: more than one while frames go round or are doubled. */
  readonly copies: number;
}
export interface ContactLane {
  readonly from: string;
  readonly to: string;
  readonly vlan: number;
  readonly spans: readonly ContactSpan[];
}
export type FrameKind = 'config' | 'notification' | 'rst' | 'mst' | 'lacp' | 'own';

/** A control frame as it left a port. */
export interface FrameRecord {
  readonly at: number;
  readonly from: string;
  readonly octets: Uint8Array;
  readonly kind: FrameKind;
  /** VLAN of its tree; null for those of a single process. */
  readonly vlan: number | null;
  /** What each receiver made of it: the port, when, and its word for it. */
  readonly heard: readonly { readonly port: string; readonly at: number; readonly info: string }[];
}

export type Happening =
  | {
      readonly kind: 'script';
      readonly at: number;
      readonly event: number;
      readonly step: number;
      readonly sentence: string;
    }
  | { readonly kind: 'void'; readonly at: number; readonly event: number; readonly sentence: string }
  | { readonly kind: 'flush'; readonly at: number; readonly switch: string; readonly entries: number }
  | {
      readonly kind: 'guard';
      readonly at: number;
      readonly port: string;
      readonly guard: 'bpdu' | 'root' | 'loop';
      readonly until: number | null;
    }
  | { readonly kind: 'recover'; readonly at: number; readonly port: string }
  | {
      readonly kind: 'bundle';
      readonly at: number;
      readonly bundle: string;
      readonly active: number;
      readonly of: number;
    }
  | { readonly kind: 'restart'; readonly at: number; readonly switch: string }
  | { readonly kind: 'loop'; readonly at: number; readonly tree: string; readonly links: readonly string[] }
  | {
      readonly kind: 'loop-end';
      readonly at: number;
      readonly tree: string;
      readonly ports: readonly string[];
    };

export interface LoopSpan {
  readonly tree: string;
  readonly from: number;
  readonly to: number | null;
  /** Ports in the loop. */
  readonly ports: readonly string[];
  /** Mb/s of its slowest link, which copies fill. */
  readonly rate: number;
  /** Microseconds that a frame needs once round. */
  readonly around: number;
  /** Rings that are joined in it: with more than one, copies multiply at each turn. */
  readonly turns: number;
}

export interface Trace {
  readonly until: number;
  readonly ports: readonly PortLane[];
  readonly roots: readonly { readonly tree: string; readonly spans: readonly RootSpan[] }[];
  readonly contacts: readonly ContactLane[];
  readonly frames: readonly FrameRecord[];
  /** Control frames that were sent and are not kept, since there were too many. */
  readonly unkept: number;
  readonly happenings: readonly Happening[];
  readonly loops: readonly LoopSpan[];
  /** VLANs that a tree stands for, besides its own. */
  readonly alike: Readonly<Record<string, readonly number[]>>;
  readonly handled: number;
  readonly bpdus: number;
  /** How it ended, and what is to be said of it. */
  readonly ended: 'end' | 'limit' | 'cancelled';
  readonly sentence: string;
}

const NOBODY: FrameRecord['heard'] = [];
export const MOST_FRAMES = 120_000;

export const classicState: Record<StpState, PortState> = {
  disabled: 'disabled',
  blocking: 'discarding',
  listening: 'listening',
  learning: 'learning',
  forwarding: 'forwarding',
};

/** A lane of a port that is still written. */
export interface OpenLane {
  readonly tree: string;
  readonly port: string;
  readonly spans: PortSpan[];
}

type Open<T> = { -readonly [K in keyof T]: T[K] };

/** Collects while a network runs. Before the start only the last state of everything is kept. */
export class Recorder {
  private readonly lanes = new Map<string, OpenLane>();
  private readonly rootLanes = new Map<string, { tree: string; spans: RootSpan[] }>();
  private readonly contactLanes = new Map<string, { from: string; to: string; vlan: number; spans: ContactSpan[] }>();
  readonly frames: Open<FrameRecord>[] = [];
  readonly happenings: Happening[] = [];
  readonly loopSpans: Open<LoopSpan>[] = [];
  unkept = 0;
  private readonly last = new Map<string, Uint8Array>();

  /** Lane of a port in a tree, to write in often. */
  lane(tree: string, port: string): OpenLane {
    const key = `${tree}\n${port}`;
    let lane = this.lanes.get(key);
    if (!lane) this.lanes.set(key, (lane = { tree, port, spans: [] }));
    return lane;
  }

  port(now: number, lane: OpenLane, role: RunRole, state: PortState): void {
    const before = lane.spans.at(-1);
    if (before && before.role === role && before.state === state) return;
    this.add(lane.spans, { at: now, role, state }, (a, b) => a.role === b.role && a.state === b.state);
  }

  roots(now: number, tree: string, roots: readonly string[]): void {
    let lane = this.rootLanes.get(tree);
    if (!lane) this.rootLanes.set(tree, (lane = { tree, spans: [] }));
    this.add(lane.spans, { at: now, roots }, (a, b) => a.roots.join('\n') === b.roots.join('\n'));
  }

  contact(now: number, from: string, to: string, vlan: number, span: Omit<ContactSpan, 'at'>): void {
    const key = `${vlan}\n${from}\n${to}`;
    let lane = this.contactLanes.get(key);
    if (!lane) this.contactLanes.set(key, (lane = { from, to, vlan, spans: [] }));
    this.add(
      lane.spans,
      { at: now, ...span },
      (a, b) => a.ok === b.ok && a.copies === b.copies && a.path.join('\n') === b.path.join('\n'),
    );
  }

  /** Keeps a span where it says something new; of one moment the last word counts, and before the start one span is kept. */
  private add<T extends { readonly at: number }>(spans: T[], span: T, same: (a: T, b: T) => boolean): void {
    const before = spans.at(-1);
    if (before && same(before, span)) return;
    if (before && (before.at === span.at || span.at <= 0)) {
      spans.pop();
      const earlier = spans.at(-1);
      if (earlier && same(earlier, span)) return;
    }
    spans.push(span.at < 0 ? { ...span, at: 0 } : span);
  }

  /** Index of the frame among those kept; −1 before the start and beyond the most that are kept. */
  frame(now: number, from: string, octets: Uint8Array, kind: FrameKind, vlan: number | null): number {
    if (now < 0) return -1;
    if (this.frames.length >= MOST_FRAMES) {
      this.unkept++;
      return -1;
    }
    const kept = kind === 'lacp' || kind === 'own' ? this.once(from, octets) : octets;
    this.frames.push({ at: now, from, octets: kept, kind, vlan, heard: NOBODY });
    return this.frames.length - 1;
  }

  /** LACPDUs of a port are the same again and again: one copy of the octets serves them all, as with BPDUs. */
  private once(from: string, octets: Uint8Array): Uint8Array {
    const before = this.last.get(from);
    if (before && sameOctets(before, octets)) return before;
    this.last.set(from, octets);
    return octets;
  }

  heard(index: number, port: string, at: number, info: string): void {
    if (index < 0) return;
    const frame = this.frames[index]!;
    // Nearly every frame has one receiver, and an array of one takes a tenth of the room of one that grew.
    if (frame.heard.length === 0) frame.heard = [{ port, at, info }];
    else frame.heard = [...frame.heard, { port, at, info }];
  }

  happened(happening: Happening): void {
    if (happening.at >= 0) this.happenings.push(happening);
  }

  trace(rest: Pick<Trace, 'until' | 'alike' | 'handled' | 'bpdus' | 'ended' | 'sentence'>): Trace {
    return {
      ...rest,
      ports: [...this.lanes.values()],
      roots: [...this.rootLanes.values()],
      contacts: [...this.contactLanes.values()],
      frames: this.frames,
      unkept: this.unkept,
      happenings: this.happenings,
      loops: this.loopSpans,
    };
  }
}
