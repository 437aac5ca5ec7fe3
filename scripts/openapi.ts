/** Writes docs/openapi.json from the schemas in the code. */
import { writeFileSync } from 'node:fs';
import { openApi } from '../src/api/openapi';

writeFileSync(new URL('../docs/openapi.json', import.meta.url), `${JSON.stringify(openApi(), null, 2)}\n`);
