/** What a chart is made of, as data: plates, pegs, wires and spots. */
import type { Point, Anchor, Box } from './geometry';
import type { Role } from '../../core/trees';
import type { Arranged } from './arrange';

export interface PlateItem extends Point {
  readonly id: string;
  readonly name: string;
  readonly width: number;
  /** Second line: what is worth knowing of the switch in this view. */
  readonly second: string;
  /** Word at the right of the second line; empty for none. */
  readonly tag: string;
  /** The plate in words, for those who do not see it. */
  readonly spoken: string;
  readonly standing: Standing;
  /** MST region, where there are any: its name and its hue. */
  readonly region?: { readonly name: string; readonly hue: number };
  /** Switches that it stands for, where it is not one switch. */
  readonly fold?: { readonly switches: readonly string[]; readonly kind: 'switch' | 'alike' | 'group' | 'groups' };
  /** In what it differs from those that are otherwise alike. */
  readonly unlike?: string;
  /** How much is wrong at it, in a badge that is seen from afar too. */
  readonly alarms?: number;
}

export type Standing = 'root' | 'mac-only-root' | 'next' | 'plain' | 'outside' | 'off' | 'apart';

export interface PegItem extends Anchor {
  /** Unique among the pegs. */
  readonly key: string;
  /** Port or bundle. */
  readonly id: string;
  /** Others that it stands for as well. */
  readonly also?: readonly string[];
  readonly role: Role | 'port';
  /** Name of the port, where the view shows it. */
  readonly name?: string | undefined;
  /** Faces another MST region: 1 where the link is the neighbour's, 2 where it is one's own. */
  readonly boundary?: 1 | 2;
  /** Smaller where many ports crowd on one edge. */
  readonly crowded: boolean;
}

/** How a wire is drawn in the tree in view. */
export type WireState = 'open' | 'blocked' | 'down' | 'half' | 'outside';

export interface WireItem {
  /** Unique among the wires; a segment has one a port. */
  readonly key: string;
  readonly id: string;
  /** Ports or bundles at the ends; null where a host or segment is. */
  readonly portA: string | null;
  readonly portB: string | null;
  readonly kind: 'link' | 'bundle' | 'segment' | 'host' | 'ghost';
  readonly a: Anchor;
  readonly b: Anchor;
  /** Points that it passes on its way round plates, with the direction in which it does. */
  readonly via?: readonly Anchor[];
  readonly state: WireState;
  readonly blockedA: boolean;
  readonly blockedB: boolean;
  readonly label: string | null;
  /** Wires that it stands for, where they are several. */
  readonly count?: number;
  /** Share of the way at which the label stands; the middle when absent. */
  readonly labelAt?: number;
  /** Whether the label tells of something wrong. */
  readonly alarm?: boolean;
  /** A bundle here forwards at one end only: a loop or a black hole that the trees do not see. */
  readonly unseen?: boolean;
  /** Frames loop over it at the moment. */
  readonly round?: boolean;
  /** Weight of the line by rate, 1 to 4, where the view shows it. */
  readonly weight?: number;
}

export interface SpotItem extends Point {
  readonly id: string;
  readonly kind: 'host' | 'segment';
  readonly name: string;
  /** Whether it is unreachable from what it belongs to. */
  readonly alarm?: boolean;
}

export interface NoteItem extends Point {
  readonly id: string;
  readonly form: 'text' | 'box' | 'distance';
  readonly lines: readonly string[];
  /** Of its words; x and y are their upper left corner. */
  readonly width: number;
  readonly height: number;
  readonly frame?: Box;
  /** Ends of the dimension line, and what they measure from. */
  readonly span?: { readonly a: Point; readonly b: Point; readonly fromA: Point; readonly fromB: Point };
  /** What the words are about, where they do not stand beside it. */
  readonly lead?: Point;
  /** Of words about something: how far they stand from their usual place. */
  readonly by?: Point;
  /** Whether it stands on the sheet by itself. */
  readonly loose: boolean;
}

export interface Scene {
  readonly plates: readonly PlateItem[];
  readonly pegs: readonly PegItem[];
  readonly wires: readonly WireItem[];
  readonly spots: readonly SpotItem[];
  readonly notes: readonly NoteItem[];
  readonly ruler: Arranged['ruler'];
  readonly outside: number | null;
}
