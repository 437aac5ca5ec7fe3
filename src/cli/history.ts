/** History of designs in the database, also while a server runs: steps, states, differences, and the way back. */
import { databaseFile, openDatabase } from '../server/database';
import { copyVariant, listDesigns } from '../server/designs';
import { differenceOf, nameState, pastOf } from '../server/past';
import type { Db } from '../server/db';
import { newId } from '../server/store';
import { goBack, stateAt } from '../server/variants';
import { complain, print } from './files';

export interface HistoryOptions {
  readonly variant?: string;
  readonly state?: string;
  readonly from?: string;
  readonly to?: string;
  readonly name?: string;
  readonly copy?: string;
  readonly goBack?: string;
  readonly json?: boolean;
}

interface Wanted {
  readonly design: string;
  readonly id: string;
  readonly revision: number;
}

/** The variant that is named, by ids or names; a sentence when there is none. */
function find(db: Db, designName: string, variantName: string | undefined): Wanted | string {
  const all = listDesigns(db);
  const design = all.find((d) => d.id === designName || d.name === designName);
  if (!design)
    return `There is no design '${designName}': there are ${all.map((d) => `'${d.name}'`).join(', ') || 'none'}.`;
  const names = design.variants.map((v) => `'${v.name}'`).join(', ');
  const found = variantName
    ? design.variants.find((v) => v.id === variantName || v.name === variantName)
    : design.variants[0];
  return found
    ? { design: design.id, id: found.id, revision: found.revision }
    : `Design '${design.name}' has no variant '${variantName}': it has ${names}.`;
}

const numberIn = (text: string | undefined, most: number, usual: number): number | null => {
  if (text === undefined) return usual;
  return /^\d+$/.test(text) && Number(text) <= most ? Number(text) : null;
};

function lines(db: Db, { id }: Wanted): string[] {
  const { steps } = pastOf(db, id);
  return steps.map((s) => {
    const label = s.kind === 'edit' ? s.label : `${s.kind}: ${s.label}`;
    const when = new Date(s.madeAt).toISOString().slice(0, 16).replace('T', ' ');
    return [s.revision, when, s.author || '-', s.name ? `${label} (${s.name})` : label].join('\t');
  });
}

/** What is changed rather than read; undefined when nothing is asked for. */
function change(db: Db, wanted: Wanted, options: HistoryOptions): string | null | undefined {
  const { id, revision } = wanted;
  const state = numberIn(options.state ?? options.goBack, revision, revision);
  if (options.name === undefined && options.copy === undefined && options.goBack === undefined) return undefined;
  if (state === null) return null;
  if (options.goBack !== undefined) {
    const step = goBack(
      db,
      id,
      { revision, to: state, client: 'shell', author: 'shell' },
      `Back to state ${state}`,
      Date.now(),
    );
    return `State ${step.revision} is what state ${state} was.\n`;
  }
  if (options.copy !== undefined) {
    const head = copyVariant(db, wanted.design, id, options.copy, newId, Date.now(), { revision: state });
    return `Made variant '${head.variants.at(-1)?.name ?? ''}' from state ${state}.\n`;
  }
  nameState(db, id, state, (options.name ?? '').trim());
  return options.name ? `State ${state} is called '${options.name}'.\n` : `State ${state} has no name any more.\n`;
}

function answer(db: Db, wanted: Wanted, options: HistoryOptions): string | null {
  const changed = change(db, wanted, options);
  if (changed !== undefined) return changed;
  const most = wanted.revision;
  if (options.state !== undefined) {
    const state = numberIn(options.state, most, most);
    return state === null ? null : `${JSON.stringify(stateAt(db, wanted.id, state), null, 2)}\n`;
  }
  if (options.from !== undefined || options.to !== undefined) {
    const [from, to] = [numberIn(options.from, most, 0), numberIn(options.to, most, most)];
    if (from === null || to === null) return null;
    const difference = differenceOf(db, wanted.id, from, to);
    return options.json ? `${JSON.stringify(difference, null, 2)}\n` : `${difference.lines.join('\n')}\n`;
  }
  return options.json ? `${JSON.stringify(pastOf(db, wanted.id), null, 2)}\n` : `${lines(db, wanted).join('\n')}\n`;
}

/** Prints the newest steps, the document of one state, or what differs between two. */
export async function history(design: string, options: HistoryOptions): Promise<number> {
  try {
    const db = openDatabase(databaseFile());
    const wanted = find(db, design, options.variant);
    const text = typeof wanted === 'string' ? null : answer(db, wanted, options);
    db.$client.close();
    if (typeof wanted === 'string') complain(wanted);
    else if (text === null) complain(`States run from 0 to ${wanted.revision}: give whole numbers in that range.`);
    else {
      await print(text);
      return 0;
    }
  } catch (error) {
    complain(error instanceof Error ? error.message : String(error));
  }
  return 1;
}
