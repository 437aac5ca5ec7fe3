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

export type CaptureEvent =
  | {
      readonly kind: 'root';
      readonly at: number;
      readonly tree: string;
      readonly sender: string;
      readonly root: string;
    }
  | {
      readonly kind: 'role';
      readonly at: number;
      readonly tree: string;
      readonly sender: string;
      readonly port: number;
      readonly role: string;
      readonly before: string;
    }
  | {
      readonly kind: 'change';
      readonly at: number;
      readonly tree: string;
      readonly sender: string;
      readonly port: number;
    }
  | { readonly kind: 'notified'; readonly at: number; readonly sender: string }
  | {
      readonly kind: 'silent';
      readonly at: number;
      readonly tree: string;
      readonly sender: string;
      readonly port: number;
      readonly seconds: number | null;
    }
  | {
      readonly kind: 'lacp';
      readonly at: number;
      readonly sender: string;
      readonly port: number;
      readonly now: readonly string[];
      readonly before: readonly string[];
    };

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

  private note(event: CaptureEvent): void {
    if (this.events.length < MOST_EVENTS) this.events.push(event);
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
      this.note({ kind: 'silent', at: lane.last, tree: of.tree, sender: of.sender, port: of.port, seconds: gap / 1e6 });
    }
    const before = lane.spans.at(-1)!;
    if (before.silent || before.role !== now.role || before.state !== now.state) {
      lane.spans.push({ at, role: now.role, state: now.state });
      if (before.role !== now.role && before.role !== null && now.role !== null)
        this.note({
          kind: 'role',
          at,
          tree: of.tree,
          sender: of.sender,
          port: of.port,
          role: now.role,
          before: before.role,
        });
    }
    if (changing && !lane.changing) this.note({ kind: 'change', at, tree: of.tree, sender: of.sender, port: of.port });
    const rootKey = `${of.sender} ${of.tree}`;
    const root = this.roots.get(rootKey);
    if (root !== now.root.mac) {
      this.roots.set(rootKey, now.root.mac);
      if (root !== undefined)
        this.note({ kind: 'root', at, tree: of.tree, sender: of.sender, root: numberToMac(now.root.mac) });
    }
    Object.assign(lane, { last: at, hello: now.hello, changing });
  }

  changeNotified(at: number, sender: string): void {
    this.note({ kind: 'notified', at, sender });
  }

  negotiated(at: number, sender: string, port: number, state: number): void {
    const key = `${sender} ${port}`;
    const before = this.states.get(key);
    if (before === state) return;
    this.states.set(key, state);
    if (before !== undefined)
      this.note({ kind: 'lacp', at, sender, port, now: stateWords(state), before: stateWords(before) });
  }

  /** The first and the last frame; ports that have said nothing for a while are silent at the end. */
  end(from: number, until: number): void {
    this.from = Number.isFinite(from) ? from : 0;
    this.until = Math.max(until, this.from);
    for (const lane of this.byKey.values())
      if (until - lane.last > HELLOS * lane.hello && lane.spans.at(-1)!.role === 'designated') {
        lane.spans.push({ at: lane.last + HELLOS * lane.hello, role: null, state: null, silent: true });
        this.note({
          kind: 'silent',
          at: lane.last,
          tree: lane.tree,
          sender: lane.sender,
          port: lane.port,
          seconds: null,
        });
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
