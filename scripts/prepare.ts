/** Creates the database file, brings its tables up to date, and seeds the demo into a new one. */
import { databaseFile, openDatabase } from '../src/server/database';
import { newId } from '../src/server/http';
import { seed } from '../src/server/seed';

const db = openDatabase(databaseFile());
if (seed(db, newId, Date.now())) process.stdout.write('Seeded the demo design, Brackwater Ferries.\n');
db.$client.close();
