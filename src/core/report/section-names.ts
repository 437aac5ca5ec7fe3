/** Sections of a report and what it is printed on, by themselves: they are chosen before any of it is made. */

/** Sections in their order, with their headings. */
export const SECTION_TITLES = {
  summary: 'Summary',
  cabling: 'Cabling',
  notes: 'Notes',
  trees: 'Trees',
  roots: 'Roots',
  instances: 'Instances',
  bundles: 'Bundles',
  settings: 'Settings by device',
  findings: 'Findings',
  failures: 'Failures',
  rehearsals: 'Rehearsals',
  glossary: 'Glossary',
} as const;
export type SectionId = keyof typeof SECTION_TITLES;
export const SECTION_IDS = Object.keys(SECTION_TITLES) as SectionId[];

export const PAPERS = ['A4', 'Letter'] as const;
export type Paper = (typeof PAPERS)[number];
