/** What happened to a variant: its steps page by page, names of states, and what differs between two of them. */
import { and, desc, eq, lt } from 'drizzle-orm';
import { MOST_DIFFERENCES } from '../api/contract';
import type { Past, StateDifference } from '../api/contract';
import { differenceWords } from '../core/design';
import { checkRevision, variantRow } from './documents';
import { Problem } from './problem';
import { states, steps } from './schema';
import type { Db } from './db';
import { stateAt } from './variants';

const PAGE = 100;

/** The steps before a revision, newest first. */
export function pastOf(db: Db, id: string, before = Number.MAX_SAFE_INTEGER): Past {
  variantRow(db, id);
  const list = db
    .select({
      revision: steps.revision,
      kind: steps.kind,
      target: steps.target,
      label: steps.label,
      author: steps.author,
      madeAt: steps.madeAt,
      name: states.name,
    })
    .from(steps)
    .leftJoin(states, and(eq(states.variantId, steps.variantId), eq(states.revision, steps.revision)))
    .where(and(eq(steps.variantId, id), lt(steps.revision, before)))
    .orderBy(desc(steps.revision))
    .limit(PAGE + 1)
    .all();
  const named = db
    .select({ revision: states.revision, name: states.name })
    .from(states)
    .where(eq(states.variantId, id))
    .orderBy(desc(states.revision))
    .all();
  return { steps: list.slice(0, PAGE), more: list.length > PAGE, named };
}

/** Gives a state a name, or takes it away with an empty one. */
export function nameState(db: Db, id: string, revision: number, name: string): void {
  checkRevision(variantRow(db, id), revision);
  const place = and(eq(states.variantId, id), eq(states.revision, revision));
  if (name === '') return void db.delete(states).where(place).run();
  const taken = db
    .select()
    .from(states)
    .where(and(eq(states.variantId, id), eq(states.name, name)))
    .get();
  if (taken && taken.revision !== revision)
    throw new Problem(
      422,
      'duplicate-name',
      `State ${taken.revision} is called '${name}' already: choose another name.`,
    );
  db.insert(states)
    .values({ variantId: id, revision, name })
    .onConflictDoUpdate({ target: [states.variantId, states.revision], set: { name } })
    .run();
}

/** What differs between two states of a variant, in words. */
export function differenceOf(db: Db, id: string, from: number, to: number): StateDifference {
  const lines = differenceWords(stateAt(db, id, from), stateAt(db, id, to));
  return { from, to, lines: lines.slice(0, MOST_DIFFERENCES), total: lines.length };
}
