/** Writes docs/glossary.md from the terms. */
import { writeFileSync } from 'node:fs';
import { glossaryPage } from '../src/core/messages';

writeFileSync(new URL('../docs/glossary.md', import.meta.url), glossaryPage());
