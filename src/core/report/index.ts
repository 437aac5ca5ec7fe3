/** What other rooms use of the report. */
export { csvText } from './csv';
export { html, page, table } from './html';
export type { Html } from './html';
export { PAPERS, SECTION_IDS, reportOf } from './report';
export type { Paper, SectionId } from './report';
export type { SheetOptions } from './work-sheet';
export { planCsv, planHtml, planMarkdown, planSettings, planSummary } from './work-sheet';
