/** Puts the demo into a database that has never held a design. */
import { count } from 'drizzle-orm';
import { asCabled, asMeant, asPair } from '../demo/brackwater';
import { quarryAsItIs, quarryInstances, quarryOneTree, quarryPerVlan } from '../demo/quarry';
import { createDesign } from './designs';
import type { NewId } from './designs';
import { designs } from './schema';
import type { Db } from './db';

/** Whether the demo was put in; a database that has, or had, designs is left alone. */
export function seed(db: Db, newId: NewId, now: number): boolean {
  if (db.select({ n: count() }).from(designs).get()!.n > 0) return false;
  const documents = [
    { name: 'as cabled', design: asCabled() },
    { name: 'as meant', design: asMeant() },
    { name: 'core as a pair', design: asPair() },
  ];
  const migration = [
    { name: 'as it is', design: quarryAsItIs() },
    { name: 'closets per VLAN', design: quarryPerVlan() },
    { name: 'one tree', design: quarryOneTree() },
    { name: 'instances', design: quarryInstances() },
  ];
  createDesign(db, 'Harrow Fell Quarry', migration, newId, now - 1);
  createDesign(db, 'Brackwater Ferries', documents, newId, now);
  return true;
}
