import { writeFile } from 'node:fs/promises';
import { PAPERS, SECTION_IDS, reportOf } from '../core/report';
import type { Paper, SectionId } from '../core/report';
import { complain, print, readDesignFile } from './files';

export interface ReportOptions {
  readonly out?: string;
  readonly sections?: string;
  readonly paper: string;
}

const isSection = (id: string): id is SectionId => (SECTION_IDS as readonly string[]).includes(id);
const isPaper = (name: string): name is Paper => (PAPERS as readonly string[]).includes(name);

/** The report of a design as one HTML file; status 2 when the design cannot be read or an option is not known. */
export async function report(file: string, options: ReportOptions): Promise<number> {
  const paper = PAPERS.find((p) => p.toLowerCase() === options.paper.toLowerCase()) ?? options.paper;
  if (!isPaper(paper)) {
    complain(`--paper '${options.paper}' is not known: say ${PAPERS.join(' or ')}.`);
    return 2;
  }
  const asked = options.sections?.split(',').map((s) => s.trim()) ?? SECTION_IDS;
  const unknown = asked.find((id) => !isSection(id));
  if (unknown !== undefined) {
    complain(`--sections: there is no section '${unknown}': the sections are ${SECTION_IDS.join(', ')}.`);
    return 2;
  }
  const design = await readDesignFile(file);
  if (!design) return 2;
  const text = reportOf(design, asked.filter(isSection), paper);
  if (options.out === undefined) await print(text);
  else
    try {
      await writeFile(options.out, text);
    } catch (error) {
      complain(`${options.out}: cannot be written: ${(error as NodeJS.ErrnoException).code ?? 'unknown'}.`);
      return 2;
    }
  return 0;
}
