/** Answers of an engineer who works a tree out by hand, checked one by one. */
import { portsOnLan } from '../network';
import { ROLE } from './outcome';
import { rootsOf } from './state';
import type { SolvedDesign, SolvedTree } from './solved';

export type EndAnswer = 'root' | 'designated' | 'blocked';

/** What was answered; what is missing was left open. */
export interface Prediction {
  /** Id of the root. */
  readonly root?: string;
  /** By switch id: root path cost as typed, and id of the root port. */
  readonly costs: Readonly<Record<string, string>>;
  readonly rootPorts: Readonly<Record<string, string>>;
  /** By id of port or bundle. */
  readonly ends: Readonly<Record<string, EndAnswer>>;
}

export const NO_ANSWERS: Prediction = { costs: {}, rootPorts: {}, ends: {} };

/** A line of the sheet between two ports of a tree. */
export interface SheetLink {
  readonly a: number;
  readonly b: number;
}

/** Links of the tree with a port at either end, in the order of the LANs; on a shared LAN each port with the first. */
export function sheetLinks({ topology, problem }: SolvedTree): SheetLink[] {
  const links: SheetLink[] = [];
  for (let lan = 0; lan < topology.lanCount; lan++) {
    const [a, ...others] = [...portsOnLan(topology, lan)].filter((p) => problem.portTakesPart[p]);
    for (const b of others) links.push({ a: a!, b });
  }
  return links;
}

/** The right answer for an end. */
export function endAnswer({ outcome }: SolvedTree, port: number): EndAnswer {
  const role = outcome.role[port];
  return role === ROLE.root || role === ROLE.master
    ? 'root'
    : role === ROLE.designated || role === ROLE.disputed
      ? 'designated'
      : 'blocked';
}

/** Keys of answers that are right and wrong: `root`, `cost <switch>`, `port <switch>`, `end <port>`. */
export interface Marks {
  readonly right: ReadonlySet<string>;
  readonly wrong: ReadonlySet<string>;
  readonly open: number;
}

/** Checks every answer; a cost may be written with blanks between its digits. */
export function checkPrediction(solved: SolvedDesign, of: SolvedTree, answers: Prediction): Marks {
  const { design, ports } = solved.topology;
  const [right, wrong] = [new Set<string>(), new Set<string>()];
  let open = 0;
  const mark = (key: string, given: string | undefined, correct: string) => {
    if (given === undefined || given.trim() === '') open++;
    else (given === correct ? right : wrong).add(key);
  };
  const root = rootsOf(of)[0];
  mark('root', answers.root, root === undefined ? '' : design.switches[root]!.id);
  design.switches.forEach((s, b) => {
    if (of.outcome.root[b]! < 0 || of.outcome.root[b] === b) return;
    mark(`cost ${s.id}`, answers.costs[s.id]?.replace(/[\s\u00a0]/g, ''), String(of.outcome.rootPathCost[b]));
    mark(`port ${s.id}`, answers.rootPorts[s.id], ports[of.outcome.rootPort[b]!]!.element.id);
  });
  for (const { a, b } of sheetLinks(of))
    for (const p of [a, b]) {
      const { id } = ports[p]!.element;
      mark(`end ${id}`, answers.ends[id], endAnswer(of, p));
    }
  return { right, wrong, open };
}
