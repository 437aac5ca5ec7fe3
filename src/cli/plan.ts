import { mkdir, writeFile } from 'node:fs/promises';
import path from 'node:path';
import type { Design, Probe } from '../core/design';
import { planMessages as say } from '../core/messages';
import {
  atWords,
  consoleNames,
  lineWords,
  movesWords,
  outageLines,
  outageWords,
  planChange,
  planJson,
} from '../core/plan';
import type { ChangePlan, PlanProgress } from '../core/plan';
import { planCsv, planHtml, planMarkdown, planSummary } from '../core/report';
import { hostVlans } from '../core/review';
import { complain, print, printLine, readDesignFile } from './files';

export interface PlanCommandOptions {
  readonly watch?: readonly string[];
  readonly at?: string;
  readonly temporary: boolean;
  readonly seconds: string;
  readonly json?: boolean;
  /** As JSON a line, with how far it is. */
  readonly progress?: boolean;
  readonly markdown?: boolean;
  readonly csv?: boolean;
  readonly html?: boolean;
  readonly states?: string;
}

/** An option that does not fit the design. */
class Misfit extends Error {}

const named = <T extends { readonly id: string; readonly name: string }>(
  list: readonly T[],
  name: string,
): T | undefined => list.find((e) => e.name === name) ?? list.find((e) => e.id === name);

function pairsOf(design: Design, watch: readonly string[] | undefined): Probe[] | undefined {
  return watch?.map((words) => {
    const [a, b] = words.split(',').map((name) => {
      const host = named(design.hosts, name.trim());
      if (!host) throw new Misfit(say['no-watched']({ name: name.trim() }));
      return { ...host, lives: hostVlans(design)[design.hosts.indexOf(host)] };
    });
    if (!a || !b) throw new Misfit(say['no-watched']({ name: words }));
    if (a.lives !== b.lives || a.lives === null || a.lives === undefined)
      throw new Misfit(say['watched-apart']({ a: a.name, b: b.name }));
    return { from: a.id, to: b.id, vlan: a.lives };
  });
}

function placeOf(design: Design, at: string | undefined): string | undefined {
  if (at === undefined) return design.workplaces[0]?.at;
  const found = named(design.hosts, at) ?? named(design.switches, at);
  if (!found) throw new Misfit(say['no-place']({ place: at }));
  return found.id;
}

/** The designs on the way: before the first step and after each; the last is the target itself. */
async function writeStates(folder: string, from: Design, to: Design, { steps }: ChangePlan): Promise<void> {
  await mkdir(folder, { recursive: true });
  const states = [from, ...steps.slice(0, -1).map((s) => s.after), to];
  for (const [i, state] of states.entries()) {
    const file = path.join(folder, `${String(i).padStart(2, '0')}.json`);
    await writeFile(file, `${JSON.stringify(state, null, 2)}\n`);
  }
}

async function printLines(plan: ChangePlan): Promise<void> {
  await print(`${planSummary(plan)}; ${plan.exact ? 'no order is better' : 'the best order found'}.\n`);
  for (const name of consoleNames(plan)) await print(`A console is needed at ${name}.\n`);
  for (const [i, step] of plan.steps.entries()) {
    await print(`${i + 1}. ${atWords(step)}${step.work.kind === 'temporary' ? ' (temporary)' : ''}\n`);
    for (const line of step.set) await print(`   set ${lineWords(line)}\n`);
    await print(`   moves ${movesWords(step)}; outage: ${outageWords(step)}\n`);
    for (const line of outageLines(step)) await print(`     ${line}\n`);
    for (const see of step.see) await print(`   see ${see}\n`);
  }
}

/** Plans the change from one design to another; status 1 where a device cannot be reached, 2 where there is no plan. */
export async function plan(fromFile: string, toFile: string, options: PlanCommandOptions): Promise<number> {
  const seconds = Number(options.seconds);
  if (!(seconds >= 0)) {
    complain(`--seconds '${options.seconds}' is no number of seconds.`);
    return 2;
  }
  const [from, to] = [await readDesignFile(fromFile), await readDesignFile(toFile)];
  if (!from || !to) return 2;
  const ends = Date.now() + seconds * 1000;
  try {
    const watch = pairsOf(from, options.watch);
    const at = placeOf(from, options.at);
    const asked = { temporary: options.temporary, ...(watch ? { watch } : {}), ...(at === undefined ? {} : { at }) };
    const told = options.progress ? teller() : null;
    const found = planChange(from, to, asked, (progress) => {
      told?.(progress);
      return Date.now() > ends;
    });
    if (!found.ok) throw new Misfit(found.sentence);
    const title = `${from.name}, ${path.parse(fromFile).name} → ${path.parse(toFile).name}`;
    await printPlan(found.plan, title, options);
    if (options.states !== undefined) await writeStates(options.states, from, to, found.plan);
    return consoleNames(found.plan).length > 0 ? 1 : 0;
  } catch (error) {
    if (!(error instanceof Misfit)) throw error;
    complain(error.message);
    return 2;
  }
}

/** Milliseconds between two lines of progress at least. */
const BETWEEN_LINES = 500;

/** Prints how far a planning is, now and then. */
function teller(): (progress: PlanProgress) => void {
  let last = -Infinity;
  return (progress) => {
    if (Date.now() - last < BETWEEN_LINES) return;
    last = Date.now();
    void printLine({ kind: 'progress', ...progress });
  };
}

async function printPlan(found: ChangePlan, title: string, options: PlanCommandOptions): Promise<void> {
  const sheet = { title, date: new Date().toISOString().slice(0, 10) };
  if (options.progress) await printLine({ kind: 'done', answer: planJson(found) });
  else if (options.json) await print(`${JSON.stringify(planJson(found))}\n`);
  else if (options.markdown) await print(planMarkdown(found, sheet));
  else if (options.csv) await print(planCsv(found));
  else if (options.html) await print(planHtml(found, sheet));
  else await printLines(found);
}
