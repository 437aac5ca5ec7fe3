/** A capture over time: roots, roles and states of ports as they said them, topology changes, silences, negotiations. */
import { stateWords } from '../../protocols/frames';
import { numberToMac } from '../../standard';
import type { BridgeId } from '../../standard';
import type { ObservedRole, ObservedState } from '../model';

export interface PortInTree {
  /** Address of the bridge. */
  readonly sender: string;
  readonly port: number;
  readonly tree: string;
}

export interface SaidSpan {
  /** Microseconds from the first frame. */
  readonly at: number;
  readonly role: ObservedRole | null;
  readonly state: ObservedState | null;
  /** It had fallen silent for more than three hellos. */
  readonly silent?: true;
}

export interface CaptureLane extends PortInTree {
  readonly spans: readonly SaidSpan[];
}

interface Happened {
  readonly at: number;
  /** The frame that says it; null for a silence. */
  readonly frame: Uint8Array | null;
}

export type CaptureEvent = Happened &
  (
    | { readonly kind: 'root'; readonly tree: string; readonly sender: string; readonly root: string }
    | ({ readonly kind: 'role'; readonly role: string; readonly before: string } & PortInTree)
    | ({ readonly kind: 'change' } & PortInTree)
    | { readonly kind: 'notified'; readonly sender: string }
    | ({ readonly kind: 'silent'; readonly seconds: number | null } & PortInTree)
    | {
        readonly kind: 'lacp';
        readonly sender: string;
        readonly port: number;
        readonly now: readonly string[];
        readonly before: readonly string[];
      }
  );

interface Lane extends PortInTree {
  readonly spans: SaidSpan[];
  last: number;
  hello: number;
  changing: boolean;
}

/** Frames that a busy capture may bring beyond these are counted, and not listed. */
const MOST_EVENTS = 20_000;
const HELLOS = 3;

export class CaptureStory {
  private readonly byKey = new Map<string, Lane>();
  private readonly roots = new Map<string, number>();
  private readonly states = new Map<string, number>();
  readonly events: CaptureEvent[] = [];
  /** Events beyond those listed. */
  left = 0;
  from = 0;
  until = 0;

  /** A frame is copied: its octets belong to a piece of the file that goes. */
  private note(event: CaptureEvent): void {
    if (this.events.length < MOST_EVENTS) this.events.push({ ...event, frame: event.frame?.slice() ?? null });
    else this.left++;
  }

  /** A BPDU, or its part for an instance. */
  said(
    at: number,
    of: PortInTree,
    now: {
      readonly root: BridgeId;
      readonly role: ObservedRole | null;
      readonly state: ObservedState | null;
      readonly hello: number;
    },
    changing: boolean,
    frame: Uint8Array,
  ): void {
    const key = `${of.sender} ${of.port} ${of.tree}`;
    let lane = this.byKey.get(key);
    if (!lane) {
      lane = { ...of, spans: [{ at, role: now.role, state: now.state }], last: at, hello: now.hello, changing: false };
      this.byKey.set(key, lane);
    }
    const gap = at - lane.last;
    // Only a designated port speaks all the time.
    if (gap > HELLOS * lane.hello && lane.spans.at(-1)!.role === 'designated') {
      lane.spans.push({ at: lane.last + HELLOS * lane.hello, role: null, state: null, silent: true });
      this.note({ kind: 'silent', at: lane.last, ...of, seconds: gap / 1e6, frame: null });
    }
    const before = lane.spans.at(-1)!;
    if (before.silent || before.role !== now.role || before.state !== now.state) {
      lane.spans.push({ at, role: now.role, state: now.state });
      if (before.role !== now.role && before.role !== null && now.role !== null)
        this.note({ kind: 'role', at, ...of, role: now.role, before: before.role, frame });
    }
    if (changing && !lane.changing) this.note({ kind: 'change', at, ...of, frame });
    const rootKey = `${of.sender} ${of.tree}`;
    const root = this.roots.get(rootKey);
    if (root !== now.root.mac) {
      this.roots.set(rootKey, now.root.mac);
      if (root !== undefined)
        this.note({ kind: 'root', at, tree: of.tree, sender: of.sender, root: numberToMac(now.root.mac), frame });
    }
    Object.assign(lane, { last: at, hello: now.hello, changing });
  }

  changeNotified(at: number, sender: string, frame: Uint8Array): void {
    this.note({ kind: 'notified', at, sender, frame });
  }

  negotiated(at: number, sender: string, port: number, state: number, frame: Uint8Array): void {
    const key = `${sender} ${port}`;
    const before = this.states.get(key);
    if (before === state) return;
    this.states.set(key, state);
    if (before !== undefined)
      this.note({ kind: 'lacp', at, sender, port, now: stateWords(state), before: stateWords(before), frame });
  }

  /** The first and the last frame; ports that have said nothing for a while are silent at the end. */
  end(from: number, until: number): void {
    this.from = Number.isFinite(from) ? from : 0;
    this.until = Math.max(until, this.from);
    for (const lane of this.byKey.values())
      if (until - lane.last > HELLOS * lane.hello && lane.spans.at(-1)!.role === 'designated') {
        lane.spans.push({ at: lane.last + HELLOS * lane.hello, role: null, state: null, silent: true });
        const { sender, port, tree } = lane;
        this.note({ kind: 'silent', at: lane.last, sender, port, tree, seconds: null, frame: null });
      }
    this.events.sort((a, b) => a.at - b.at);
  }

  /** Ports in trees, times from the first frame on. */
  lanes(): CaptureLane[] {
    return [...this.byKey.values()].map(({ sender, port, tree, spans }) => ({
      sender,
      port,
      tree,
      spans: spans.map((s) => ({ ...s, at: s.at - this.from })),
    }));
  }
}
