/** How long a failure interrupts, by theory: what its trees have to do before frames flow again. */
import { bundleById, isClassicMode, linkById, linkTypeOf, modeOf, portById, switchById, timersOf } from '../design';
import type { Design, TimersInForce } from '../design';
import { timersInForce } from '../analysis';
import { forwardsRole, ROLES } from '../trees';
import type { PortChange, SolvedDesign, TreeChange } from '../trees';
import { SECOND, lasting } from '../standard';
import { portsOfLink } from './elements';
import type { Element } from './elements';

export const OUTAGE_KINDS = ['none', 'immediate', 'milliseconds', 'hellos', 'forward-delay', 'separated'] as const;
export type OutageKind = (typeof OUTAGE_KINDS)[number];

export interface Outage {
  readonly kind: OutageKind;
  /** By theory, at worst; null where contact does not come back. */
  readonly seconds: number | null;
  /** Longest gap of a rehearsed pair, in seconds; null where it was not rehearsed. */
  readonly measured: number | null;
}

/** What agreement between rapid switches takes: frames over a few links. */
const AGREEMENT_SECONDS = 0.05;
/** Hellos that are missed before what was heard counts as gone (802.1Q-2018 13.29.36). */
const MISSED = 3;

const forwards = (role: PortChange['before']): boolean => forwardsRole(ROLES.indexOf(role));

/** Whether an element fails behind something that keeps the light on: its neighbours learn of it from silence. */
function failsSilently(design: Design, element: Element): boolean {
  if (element.segments.length > 0) return true;
  const own = new Set(element.switches);
  return design.segments.some((s) => !s.down && s.ports.some((p) => own.has(portById(design, p)?.switch ?? '')));
}

const isClassicAt = (design: Design, at: string): boolean => {
  const s = switchById(design, at);
  return s !== undefined && isClassicMode(modeOf(design, s));
};

/** Whether a port that is to forward has no neighbour to agree with quickly: it is shared, or a classic switch. */
function waits(design: Design, { id, switch: at, after }: PortChange): boolean {
  if (isClassicAt(design, at)) return true;
  const port = portById(design, id);
  const shared = port !== undefined && linkTypeOf(design, port) === 'shared';
  // A root port of a rapid switch opens by itself; a designated one needs the agreement of the other end.
  return after === 'designated' && shared && !port?.edge && !bundleById(design, id)?.edge;
}

/** Whether a classic switch learns from silence only: it keeps its root port, or had none that failed. */
const heardIndirectly = (tree: Pick<TreeChange, 'ports'>, port: PortChange, gone: ReadonlySet<string>): boolean =>
  !tree.ports.some(
    (p) => p.switch === port.switch && p.before === 'root' && (gone.has(p.id) || p.after === 'disabled'),
  );

/**
 * How long one tree is interrupted, in seconds; 0 where its alternate ports take over at once. `gone`: ports at the ends of what
 * failed; `timers`: those in force, for a tree without a root.
 */
export function treeSeconds(
  design: Design,
  tree: Omit<TreeChange, 'tree'>,
  gone: ReadonlySet<string>,
  timers: () => TimersInForce,
): number {
  const opened = tree.ports.filter((p) => !forwards(p.before) && forwards(p.after));
  let worst = 0;
  for (const port of opened) {
    const root = tree.rootAfter === null ? undefined : switchById(design, tree.rootAfter);
    const { forwardDelay, maxAge } = root ? timersOf(root) : timers();
    if (waits(design, port)) {
      const silence = isClassicAt(design, port.switch) && heardIndirectly(tree, port, gone) ? maxAge : 0;
      worst = Math.max(worst, silence + 2 * forwardDelay);
    } else if (!(port.before === 'alternate' && !heardIndirectly(tree, port, gone)))
      worst = Math.max(worst, AGREEMENT_SECONDS);
  }
  return worst;
}

const ends = new WeakMap<Element, readonly string[]>();

/** Ports at the ends of what fails, which is the same in every design that the element is of. */
function endsOf(design: Design, element: Element): readonly string[] {
  let found = ends.get(element);
  if (!found) ends.set(element, (found = element.links.flatMap((l) => portsOfLink(linkById(design, l)))));
  return found;
}

/** Ports at the ends of all that fails. */
export const endsOfAll = (design: Design, elements: readonly Element[]): ReadonlySet<string> =>
  new Set(elements.flatMap((e) => endsOf(design, e)));

/** What an outage follows from. */
export interface Interruption {
  /** Whether a host or switch is parted. */
  readonly separates: boolean;
  /** Whether what fails carried frames. */
  readonly open: boolean;
  /** What the tree takes that is interrupted longest. */
  readonly seconds: () => number;
  /** Timers in force after the failure. */
  readonly timers: () => TimersInForce;
}

/** A failure by theory. */
export function outageBy(design: Design, elements: readonly Element[], of: Interruption): Outage {
  const out = (kind: OutageKind, seconds: number | null): Outage => ({ kind, seconds, measured: null });
  if (of.separates) return out('separated', null);
  if (!of.open) return out('none', 0);
  const seconds = of.seconds();
  const { helloTime, forwardDelay } = of.timers();
  const silent = elements.some((e) => failsSilently(design, e)) ? MISSED * helloTime : 0;
  if (seconds >= 2 * forwardDelay) return out('forward-delay', Math.max(seconds, silent));
  if (silent > 0) return out('hellos', silent + seconds);
  return seconds > 0 ? out('milliseconds', seconds) : out('immediate', 0);
}

/** How long it takes until all trees of a solved design have settled, by what moved in them. */
export function settlingOf(solved: SolvedDesign, moved: readonly TreeChange[], elements: readonly Element[]): number {
  const { design } = solved.topology;
  const gone = endsOfAll(design, elements);
  return Math.max(0, ...moved.map((tree) => treeSeconds(design, tree, gone, () => timersInForce(solved))));
}

/** `for good`, `30 s (measured 29.8 s)`: how long there is no contact. */
export function outageWords({ kind, seconds, measured }: Outage): string {
  const rehearsed = measured === null ? '' : ` (measured ${lasting(Math.round(measured * SECOND))})`;
  switch (kind) {
    case 'none':
      return 'none';
    case 'separated':
      return 'for good';
    case 'immediate':
      return `at once${rehearsed}`;
    case 'milliseconds':
      return `milliseconds${rehearsed}`;
    case 'hellos':
      return `${seconds} s, three hellos${rehearsed}`;
    case 'forward-delay':
      return `${seconds} s, forward delays${rehearsed}`;
  }
}
