import type { Design } from '../core/design';
import {
  byWorst,
  failingWords,
  failureJson,
  findingJson,
  findingsOf,
  measuredOutage,
  missingCables,
  outageWords,
  pairCount,
  reviewJson,
  sweepBase,
} from '../core/review';
import type { Failure, SweepBase } from '../core/review';
import { count, grouped } from '../core/standard';
import { solveDesign } from '../core/trees';
import { sweep } from '../server/sweep/sweep';
import type { SweepPart } from '../server/sweep/sweep';
import { complain, print, printLine, readDesignFile } from './files';

export interface ReviewOptions {
  readonly pairs?: boolean;
  readonly measure: string;
  readonly json?: boolean;
  /** As JSON a line, with what is found as it is found. */
  readonly progress?: boolean;
}

const MEASURES = ['worst', 'all', 'none'];
/** Failures that are printed as lines. */
const MOST_LINES = 20;
/** Pairs up to which those without any consequence are listed as well. */
const FEW_PAIRS = 20_000;
/** Failures that are kept, worst first. */
const MOST_KEPT = 50_000;

const interrupts = ({ outage }: Failure): boolean => outage.kind !== 'none' && outage.kind !== 'separated';

/** The failures with what a rehearsal says of the longest by theory, or of all that interrupt. */
function measured(design: Design, failures: readonly Failure[], which: string): Failure[] {
  const longest = failures
    .filter(interrupts)
    .reduce<Failure | null>((a, b) => (a === null || (b.outage.seconds ?? 0) > (a.outage.seconds ?? 0) ? b : a), null);
  const asked = (f: Failure) =>
    (which === 'all' && f.elements.length === 1 && interrupts(f)) || (which === 'worst' && f === longest);
  return failures.map((f) =>
    asked(f) ? { ...f, outage: { ...f.outage, measured: measuredOutage(design, f.elements) } } : f,
  );
}

/** All failures worst first; of very many pairs those with a consequence, and of those the worst. */
async function failuresOf(
  base: SweepBase,
  pairs: boolean,
  onPart: (part: SweepPart) => Promise<void>,
): Promise<{ kept: Failure[]; left: number }> {
  let [kept, left]: [{ readonly failure: Failure; readonly number: number }[], number] = [[], 0];
  const cut = () => {
    // Those that are equally bad stand in the order of the design, whichever thread was first.
    kept.sort((a, b) => byWorst(a.failure, b.failure) || a.number - b.number);
    left += Math.max(0, kept.length - MOST_KEPT);
    kept = kept.slice(0, MOST_KEPT);
  };
  const waits = (where: string) =>
    complain(`No worker is there for the queue at ${where}: start 'knot-path worker' with the same KNOT_PATH_QUEUE.`);
  const all = pairCount(base) <= FEW_PAIRS;
  for await (const part of sweep(base, { pairs, all, waits })) {
    const { failures, from } = part;
    await onPart(part);
    failures.forEach((failure, i) => kept.push({ failure, number: from + i }));
    if (kept.length > 2 * MOST_KEPT) cut();
  }
  cut();
  return { kept: kept.map((k) => k.failure), left };
}

/** One line: what fails, who is separated, how long it lasts. */
function line(design: Design, f: Failure): string {
  const what = failingWords(design, f.elements);
  const { switches, hosts, vlans } = f.separates;
  const parts = [
    switches.length + hosts.length > 0 &&
      `separates ${count(switches.length, 'switch', 'switches')}, ${count(hosts.length, 'host')}${vlans.length > 0 ? ` in ${count(vlans.length, 'VLAN')}` : ''}${f.separates.avoidable ? ', avoidable' : ''}`,
    f.goalsBroken.length > 0 && `breaks ${f.goalsBroken.join(', ')}`,
    f.overloaded.length > 0 && `overloads ${count(f.overloaded.length, 'port')}`,
    `outage: ${outageWords(f.outage)}`,
  ].filter(Boolean);
  return `${what}: ${parts.join('; ')}`;
}

/** Findings, failures worst first, and cables that are missing; status 1 on faults that are not accepted. */
export async function review(file: string, options: ReviewOptions): Promise<number> {
  if (!MEASURES.includes(options.measure)) {
    complain(`--measure '${options.measure}' is not known: say ${MEASURES.join(', ')}.`);
    return 2;
  }
  const design = await readDesignFile(file);
  if (!design) return 2;
  const solved = solveDesign(design);
  const findings = findingsOf(solved);
  const base = sweepBase(solved);
  if (options.progress) await printLine({ kind: 'findings', findings: findings.map(findingJson) });
  else if (options.pairs && !options.json) await print(`Pairs of failures: ${grouped(pairCount(base))}.\n`);
  let found: Awaited<ReturnType<typeof failuresOf>>;
  try {
    found = await failuresOf(base, options.pairs ?? false, async ({ failures, done, of }) => {
      if (options.progress)
        await printLine({ kind: 'failures', done, of, failures: failures.map((f) => failureJson(design, f)) });
    });
  } catch (error) {
    complain((error as Error).message);
    return 2;
  }
  const failures = measured(design, found.kept, options.measure);
  const missing = missingCables(solved);
  const whole = reviewJson(design, findings, failures, missing);
  if (options.progress) await printLine({ kind: 'done', answer: whole });
  else if (options.json) await print(`${JSON.stringify(whole)}\n`);
  else {
    if (findings.length === 0) await print('Nothing found.\n');
    for (const f of findings)
      await print(`${f.severity}  ${f.code}  ${f.sentence}${f.accepted === null ? '' : ` Accepted: ${f.accepted}`}\n`);
    if (failures.length === 0) await print('Nothing that can fail: the design has no link and no switch that is on.\n');
    for (const f of failures.slice(0, MOST_LINES)) await print(`${line(design, f)}\n`);
    const more = failures.length - MOST_LINES + found.left;
    if (more > 0) await print(`and ${grouped(more)} more failures\n`);
    for (const what of ['link', 'switch'] as const) {
      for (const { a, b } of missing[what])
        await print(`missing for a ${what} to fail: cable ${at(design, a)} – ${at(design, b)}\n`);
      if (missing.short[what]) await print(`missing for a ${what} to fail: more than cables that can be laid\n`);
    }
  }
  return findings.some((f) => f.severity === 'fault' && f.accepted === null) ? 1 : 0;
}

const at = (design: Design, end: { readonly switch: string; readonly port: string | null }): string => {
  const name = design.switches.find((s) => s.id === end.switch)!.name;
  const port = design.ports.find((p) => p.id === end.port)?.name;
  return port === undefined ? `${name} (no free port)` : `${name} ${port}`;
};
