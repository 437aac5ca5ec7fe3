/** What a rehearsal leaves behind: lanes of ports, roots and contacts over time, frames, and what happened. */
import { sameOctets } from '../protocols/frames';
import type { StpState } from '../protocols/stp';
import { FrameWriter, MOST_FRAMES } from './frame-log';
import type { FrameKind, FrameLog, Held } from './frame-log';

/** `guarded`: held by a guard; `inconsistent`: held since the ends differ in their untagged VLAN. */
export type PortState =
  'disabled' | 'discarding' | 'listening' | 'learning' | 'forwarding' | 'guarded' | 'inconsistent';
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
  /** Copies of one frame that arrive: more than one while frames loop or are doubled. */
  readonly copies: number;
  /** Where the address that frames go to is not known, so that they are flooded; absent while it is. */
  readonly flood?: Flood;
}
/** What is flooded for want of an address in a MAC table. */
export interface Flood {
  /** Switches that do not know the address, in the order in which a frame meets them. */
  readonly switches: readonly string[];
  /** Ports that send a copy on a way that does not lead to the host. */
  readonly ports: number;
}
export interface ContactLane {
  readonly from: string;
  readonly to: string;
  readonly vlan: number;
  readonly spans: readonly ContactSpan[];
}
/** How far a VLAN, and those whose frames go alike, reached from a moment on. */
export interface ReachSpan {
  readonly at: number;
  /** Parts that the largest does not reach, as switches; none where the VLAN is connected. */
  readonly apart: readonly (readonly string[])[];
}
export interface ReachLane {
  readonly vlan: number;
  readonly spans: readonly ReachSpan[];
}

/** What has shut a port. */
export type ShutBy = 'bpdu' | 'one-way' | 'storm';

export type Happening =
  | {
      readonly kind: 'script';
      readonly at: number;
      readonly event: number;
      readonly step: number;
      readonly sentence: string;
      /** The switch that was root, of an event that takes the root. */
      readonly switch?: string;
    }
  | { readonly kind: 'void'; readonly at: number; readonly event: number; readonly sentence: string }
  | { readonly kind: 'flush'; readonly at: number; readonly switch: string; readonly entries: number }
  | {
      readonly kind: 'guard';
      readonly at: number;
      readonly port: string;
      readonly guard: ShutBy;
      readonly until: number | null;
    }
  /** A link that carries frames one way only is reported: the port hears nothing, or the other end says that it does not. */
  | { readonly kind: 'one-way'; readonly at: number; readonly port: string; readonly how: 'deaf' | 'unheard' }
  | { readonly kind: 'recover'; readonly at: number; readonly port: string }
  | {
      readonly kind: 'bundle';
      readonly at: number;
      readonly bundle: string;
      readonly active: number;
      readonly of: number;
      /** Ports that carry from now on. */
      readonly members: readonly string[];
    }
  | { readonly kind: 'restart'; readonly at: number; readonly switch: string };

export interface LoopSpan {
  /** VLAN, for all whose frames go alike. */
  readonly vlan: number;
  readonly from: number;
  readonly to: number | null;
  /** Ports in the loop. */
  readonly ports: readonly string[];
  /** Mb/s of its slowest link, which copies fill. */
  readonly rate: number;
  /** Mb/s of broadcast that storm limits leave; null without any that drops. */
  readonly limited: number | null;
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
  readonly frames: FrameLog;
  /** Control frames that were sent and are not kept, since there were too many. */
  readonly unkept: number;
  readonly happenings: readonly Happening[];
  readonly loops: readonly LoopSpan[];
  readonly reach: readonly ReachLane[];
  /** VLANs that cannot differ, by the one that is run and looked at for all, itself among them. */
  readonly classes: Readonly<Record<number, readonly number[]>>;
  readonly handled: number;
  readonly bpdus: number;
  /** How it ended, and what is to be said of it. */
  readonly ended: 'end' | 'limit' | 'cancelled';
  readonly sentence: string;
}

export const classicState: Record<StpState, PortState> = {
  disabled: 'disabled',
  blocking: 'discarding',
  listening: 'listening',
  learning: 'learning',
  forwarding: 'forwarding',
};

/** What a port says, and its number in the log once it has been kept. */
export interface SentMessage {
  readonly from: string;
  readonly octets: Uint8Array;
  readonly kind: FrameKind;
  readonly vlan: number | null;
  saying: number;
}

/** A lane of a port that is still written. */
export interface OpenLane {
  readonly tree: string;
  readonly port: string;
  readonly spans: PortSpan[];
}

type Open<T> = { -readonly [K in keyof T]: T[K] };

const samePieces = (a: ReachSpan['apart'], b: ReachSpan['apart']): boolean =>
  a.length === b.length && a.map((part) => part.join()).join(';') === b.map((part) => part.join()).join(';');

/** Collects while a network runs. Before the start only the last state of everything is kept. */
export class Recorder {
  private readonly lanes = new Map<string, OpenLane>();
  private readonly rootLanes = new Map<string, { tree: string; spans: RootSpan[] }>();
  private readonly contactLanes = new Map<string, { from: string; to: string; vlan: number; spans: ContactSpan[] }>();
  private readonly frames = new FrameWriter();
  private readonly reachLanes = new Map<number, { vlan: number; spans: ReachSpan[] }>();
  readonly happenings: Happening[] = [];
  readonly loopSpans: Open<LoopSpan>[] = [];
  unkept = 0;
  /** What each port said last, of what is not kept elsewhere. */
  private readonly last = new Map<string, SentMessage>();

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
      (a, b) =>
        a.ok === b.ok &&
        a.copies === b.copies &&
        a.path.join('\n') === b.path.join('\n') &&
        a.flood?.ports === b.flood?.ports &&
        a.flood?.switches.join('\n') === b.flood?.switches.join('\n'),
    );
  }

  apart(now: number, vlan: number, apart: ReachSpan['apart']): void {
    let lane = this.reachLanes.get(vlan);
    if (!lane) this.reachLanes.set(vlan, (lane = { vlan, spans: [] }));
    this.add(lane.spans, { at: now, apart }, (a, b) => samePieces(a.apart, b.apart));
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
  frame(now: number, sent: SentMessage): number {
    if (now < 0) return -1;
    if (this.frames.count >= MOST_FRAMES) {
      this.unkept++;
      return -1;
    }
    if (sent.saying < 0) sent.saying = this.frames.says(sent.from, sent.octets, sent.kind, sent.vlan);
    return this.frames.sent(now, sent.saying);
  }

  /** The same for a frame of which no other part knows whether it is the one before again, as LACPDUs of a port are. */
  anotherFrame(now: number, from: string, octets: Uint8Array, kind: FrameKind): number {
    const before = this.last.get(from);
    if (before && before.kind === kind && sameOctets(before.octets, octets)) return this.frame(now, before);
    const sent = { from, octets, kind, vlan: null, saying: -1 };
    this.last.set(from, sent);
    return this.frame(now, sent);
  }

  heard(index: number, port: string, at: number, info: string, tree = 0, held: Held | null = null): void {
    if (index >= 0) this.frames.heard(index, port, at, info, tree, held);
  }

  happened(happening: Happening): void {
    if (happening.at >= 0) this.happenings.push(happening);
  }

  trace(rest: Pick<Trace, 'until' | 'classes' | 'handled' | 'bpdus' | 'ended' | 'sentence'>): Trace {
    return {
      ...rest,
      ports: [...this.lanes.values()],
      roots: [...this.rootLanes.values()],
      contacts: [...this.contactLanes.values()],
      frames: this.frames.done(),
      unkept: this.unkept,
      happenings: this.happenings,
      loops: this.loopSpans,
      reach: [...this.reachLanes.values()],
    };
  }
}
