/** Writes docs/design.schema.json from the schema in the code; with --check, says whether it is up to date. */
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { designJsonSchema } from '../src/core/design';

const file = path.join(import.meta.dirname, '..', 'docs', 'design.schema.json');
const text = `${JSON.stringify(designJsonSchema(), null, 2)}\n`;
if (process.argv.includes('--check')) process.exitCode = readFileSync(file, 'utf8') === text ? 0 : 1;
else writeFileSync(file, text);
