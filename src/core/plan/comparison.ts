/** Variants side by side: what is found in each, what a failure does to it, and what it takes to get there from the first. */
import type { Design } from '../design';
import { busiest, loadsOf, treeCapacity } from '../analysis';
import { checkGoals } from '../goals';
import {
  byWorst,
  checkAvailability,
  failingWords,
  findingsOf,
  outageWords,
  singleFailures,
  sweepBase,
} from '../review';
import type { Failure } from '../review';
import { solveDesign } from '../trees';
import type { SolvedDesign } from '../trees';
import { frameOf } from './frame';
import { gatherWork } from './gather';
import { setLines } from './set-lines';

export interface VariantFigures {
  readonly switches: number;
  readonly links: number;
  /** Findings that are not accepted. */
  readonly findings: { readonly fault: number; readonly risk: number; readonly remark: number };
  readonly goals: { readonly met: number; readonly of: number };
  /** Single failures, those that separate a switch or host, and of these the ones that other cables of today could prevent. */
  readonly failures: { readonly of: number; readonly separating: number; readonly avoidable: number };
  /** The failure that does most harm, in words; null where none does any. */
  readonly worst: string | null;
  /** Longest outage by theory of a failure that separates nothing; null without one. */
  readonly outage: { readonly seconds: number; readonly words: string; readonly by: string } | null;
  readonly overloading: number;
  /** Fullest port on an ordinary day, in percent of its rate; null where the design has no traffic. */
  readonly fullest: number | null;
  /** Mb/s of the narrowest link that a tree keeps open; null without one. */
  readonly narrowest: number | null;
  /** Trees that differ. */
  readonly trees: number;
  /** Most links between two switches in a tree, with any one failure. */
  readonly longestPath: number;
  /** Settings and devices that differ from the first design; null for the first itself. */
  readonly touches: { readonly settings: number; readonly devices: number; readonly cables: number } | null;
}

const separates = ({ separates: { switches, hosts } }: Failure): boolean => switches.length + hosts.length > 0;

function outageOf(design: Design, failures: readonly Failure[]): VariantFigures['outage'] {
  const lasting = failures.filter((f) => (f.outage.seconds ?? 0) > 0);
  if (lasting.length === 0) return null;
  const longest = lasting.reduce((a, b) => (b.outage.seconds! > a.outage.seconds! ? b : a));
  return {
    seconds: longest.outage.seconds!,
    words: outageWords(longest.outage),
    by: failingWords(design, longest.elements),
  };
}

const fullest = (solved: SolvedDesign): number | null =>
  solved.topology.design.demands.length === 0 ? null : (busiest(solved, loadsOf(solved))[0]?.percent ?? 0);

function narrowest(solved: SolvedDesign): number | null {
  const least = Math.min(...solved.trees.map((of) => treeCapacity(solved, of).rate));
  return Number.isFinite(least) ? least : null;
}

function touches(from: Design, to: Design): VariantFigures['touches'] {
  const { start, goal } = frameOf(from, to);
  const works = gatherWork(start, goal);
  const devices = new Set(works.flatMap((w) => (w.device === null ? [] : [w.device])));
  const cables = works.filter((w) => w.kind === 'cable').length;
  const settings = works.reduce((sum, w) => sum + setLines(start, goal, w.edits).length, 0) - cables;
  return { settings, devices: devices.size, cables };
}

/** The figures of a design; `first`: the design that it is compared with, absent where it is that one. */
export function figuresOf(design: Design, first?: Design): VariantFigures {
  const solved = solveDesign(design);
  const base = sweepBase(solved);
  const failures = [...singleFailures(base)].sort(byWorst);
  const open = findingsOf(solved).filter((f) => f.accepted === null);
  const of = (severity: string) => open.filter((f) => f.severity === severity).length;
  const goals = [...checkGoals(solved), ...checkAvailability(base, failures)];
  const parting = failures.filter(separates);
  const [worst] = failures;
  return {
    switches: design.switches.length,
    links: design.links.length,
    findings: { fault: of('fault'), risk: of('risk'), remark: of('remark') },
    goals: { met: goals.filter((g) => g.state !== 'broken').length, of: goals.length },
    failures: {
      of: failures.length,
      separating: parting.length,
      avoidable: parting.filter((f) => f.separates.avoidable).length,
    },
    worst: worst && (separates(worst) || worst.outage.kind !== 'none') ? failingWords(design, worst.elements) : null,
    outage: outageOf(design, failures),
    overloading: failures.filter((f) => f.overloaded.length > 0).length,
    fullest: fullest(solved),
    narrowest: narrowest(solved),
    trees: new Set(solved.trees.map((t) => t.outcome)).size,
    longestPath: failures.reduce((most, f) => Math.max(most, f.longestPath), 0),
    touches: first ? touches(first, design) : null,
  };
}
