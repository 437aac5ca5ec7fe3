/** A design as one printable document: a single HTML file without parts from outside. */
import { byWorst, findingsOf, singleFailures, sweepBase } from '../review';
import { solveDesign } from '../trees';
import type { Design } from '../design';
import { html, page } from './html';
import type { Html } from './html';
import * as make from './sections';
import { SECTION_IDS, SECTION_TITLES } from './section-names';
import type { Paper, SectionId } from './section-names';
import type { ReportSource } from './sections';

const MAKERS: Record<SectionId, (source: ReportSource) => Html> = {
  summary: make.summary,
  cabling: make.cabling,
  notes: make.notes,
  trees: make.trees,
  roots: make.roots,
  instances: make.instances,
  bundles: make.bundles,
  settings: make.settings,
  findings: make.findings,
  failures: make.failures,
  rehearsals: make.rehearsals,
  glossary: make.glossary,
};

const STYLE = (paper: Paper) => `
@page { size: ${paper}; margin: 18mm 16mm; @bottom-right { content: counter(page) " / " counter(pages); font: 9pt sans-serif; } }
body { font: 10pt/1.4 "IBM Plex Sans", "Liberation Sans", sans-serif; color: #1c2830; background: #fff; max-width: 178mm; margin: 0 auto; }
h1 { font-size: 19pt; margin: 0 0 2mm; } h2 { font-size: 13pt; margin: 8mm 0 2mm; border-bottom: 0.3mm solid #1c2830; }
h2, h3 { break-after: avoid; } h3 { font-size: 10.5pt; margin: 4mm 0 1mm; }
table { border-collapse: collapse; width: 100%; } tr, figure, .device > p { break-inside: avoid; }
th { text-align: left; font-weight: 600; } th, td { padding: 0.7mm 2mm 0.7mm 0; border-bottom: 0.15mm solid #cfc8ba; vertical-align: top; overflow-wrap: anywhere; }
figure { margin: 0 0 5mm; } .quiet { color: #5b6770; } .story { padding: 0; list-style: none; font-size: 9pt; } .story span { display: inline-block; width: 18mm; }
dt { font-weight: 600; } dd { margin: 0 0 1.5mm; } svg { display: block; max-width: 100%; font-family: inherit; }
.plate { fill: #fff; stroke: #1c2830; stroke-width: 1.2; } .root { fill: #1c2830; } .name { font-size: 11px; font-weight: 600; } .note { font-size: 9px; fill: #5b6770; } .on { fill: #fff; } .noted { font-size: 9px; font-style: italic; text-anchor: end; } .words { white-space: pre-line; }
.open { fill: none; stroke: #3b4ba8; stroke-width: 2; } .blocked { fill: none; stroke: #5b6770; stroke-dasharray: 4 3; } .cross { fill: none; stroke: #b3202c; stroke-width: 1.6; }
`;

/** The report of a design: chosen sections in their order, on paper of a size. */
export function reportOf(design: Design, sections: readonly SectionId[] = SECTION_IDS, paper: Paper = 'A4'): string {
  const solved = solveDesign(design);
  const source: ReportSource = {
    solved,
    findings: findingsOf(solved),
    failures: [...singleFailures(sweepBase(solved))].sort(byWorst),
  };
  const chosen = SECTION_IDS.filter((id) => sections.includes(id)).flatMap((id) => {
    const made = MAKERS[id](source);
    return made.text === ''
      ? []
      : [
          html`<section id="${id}">
            <h2>${SECTION_TITLES[id]}</h2>
            ${made}
          </section>`,
        ];
  });
  const body = html`<h1>${design.name}</h1>
    ${chosen}`;
  return page(design.name, STYLE(paper), body);
}
