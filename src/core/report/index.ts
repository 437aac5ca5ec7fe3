/** What other rooms use of the report. */
export { csvText } from './csv';
export { html, page, table } from './html';
export type { Html } from './html';
export { reportOf } from './report';
export { PAPERS, SECTION_IDS, SECTION_TITLES } from './section-names';
export type { Paper, SectionId } from './section-names';
export type { SheetOptions } from './work-sheet';
export { planCsv, planHtml, planMarkdown, planSettings, planSummary } from './work-sheet';
