/** What was read against what is designed, to be printed, sent or counted: as a page, Markdown or a table. */
import type { ObservedNetwork, ObservedQuestion } from '../design';
import { csvText, html, page, table } from '../report';
import type { Html } from '../report';
import { count } from '../standard';
import type { Difference } from './compare/difference';
import { gatherTrees } from './compare/gather';
import type { GatheredDifference } from './compare/gather';

export interface DifferenceReport {
  /** Name of the design. */
  readonly title: string;
  /** When the network was read; ISO 8601. */
  readonly at: string;
  readonly network: ObservedNetwork;
  readonly differences: readonly Difference[];
}

const VERDICT = { differs: 'differs', missing: 'missing', unexpected: 'unexpected', 'not-observed': 'not observed' };
const QUESTION = {
  deviates: 'deviates',
  contradicts: 'contradiction',
  inferred: 'inferred',
  incomplete: 'incomplete',
} as const;

/** `2 differ, 1 missing`; a sentence where nothing does. */
function sumWords(differences: readonly Difference[]): string {
  const n = (verdict: Difference['verdict']) => differences.filter((d) => d.verdict === verdict).length;
  const parts = [
    [n('differs'), n('differs') === 1 ? 'differs' : 'differ'],
    [n('missing'), 'missing'],
    [n('unexpected'), 'unexpected'],
    [n('not-observed'), 'not observed'],
  ] as const;
  const said = parts.filter(([k]) => k > 0).map(([k, words]) => `${k} ${words}`);
  return said.length > 0 ? said.join(', ') : 'as designed in everything that was read';
}

const headLine = ({ at, network, differences }: DifferenceReport): string =>
  `Read ${at.slice(0, 16).replace('T', ' ')} UTC, ${count(network.switches.length, 'switch', 'switches')}: ${sumWords(differences)}.`;

const byWeight = (questions: readonly ObservedQuestion[], deviating: boolean) =>
  questions.filter((q) => (q.kind === 'deviates') === deviating);

const cells = ({ of: [d], where, what }: GatheredDifference) => [
  where,
  `${VERDICT[d.verdict]}: ${what}`,
  d.designed ?? '–',
  d.observed ?? '–',
];
const HEADS = ['where', 'what', 'designed', 'observed'];
const NONE = 'The network is as designed in everything that was read.';
const barred = (text: string): string => text.replaceAll('|', '\\|');

export function differencesMarkdown(of: DifferenceReport): string {
  const { title, network, differences } = of;
  const section = (name: string, lines: readonly string[]) =>
    lines.length === 0 ? [] : ['', `## ${name}`, '', ...lines];
  const rows = gatherTrees(differences).map((d) => `| ${cells(d).map(barred).join(' | ')} |`);
  const lines = [
    `# As built against ${title}`,
    '',
    headLine(of),
    ...section(
      'Devices that deviate',
      byWeight(network.questions, true).map((q) => `- ${q.text}`),
    ),
    ...section(
      'Differences',
      rows.length > 0 ? [`| ${HEADS.join(' | ')} |`, '| --- | --- | --- | --- |', ...rows] : [NONE],
    ),
    ...section(
      'Open questions',
      byWeight(network.questions, false).map((q) => `- ${QUESTION[q.kind]}: ${q.text}`),
    ),
  ];
  return `${lines.join('\n')}\n`;
}

/** One row a difference, and after them one a question. */
export function differencesCsv({ network, differences }: DifferenceReport): string {
  return csvText([
    ['device', 'verdict', 'field', 'designed', 'observed', 'sentence'],
    ...differences.map((d) => [d.device, d.verdict, d.field, d.designed ?? '', d.observed ?? '', '']),
    ...network.questions.map((q) => [[q.switch, q.port].filter(Boolean).join(' '), q.kind, '', '', '', q.text]),
  ]);
}

const STYLE = `
  @page { size: A4; margin: 14mm 14mm 18mm; @bottom-right { content: counter(page) ' / ' counter(pages); } }
  body { font: 10pt/1.4 'IBM Plex Sans', 'Helvetica', sans-serif; color: #1b2730; margin: 1.5em; max-width: 60em; }
  h1 { font-size: 15pt; margin: 0 0 .2em; }
  h2 { font-size: 11.5pt; margin: 1.4em 0 .3em; }
  .quiet { color: #4b5862; }
  .alarm li { color: #b01e2e; }
  table { border-collapse: collapse; width: 100%; }
  th { text-align: left; font-weight: 400; color: #4b5862; border-bottom: 1px solid #1b2730; padding: .2em .5em; }
  td { vertical-align: top; border-bottom: 1px solid #dad2c1; padding: .3em .5em; overflow-wrap: anywhere; }
  tr { break-inside: avoid; }
  thead { display: table-header-group; }
  ul { margin: 0; padding-left: 1.2em; }
  @media print { body { margin: 0; max-width: none; } }
`;

/** One page of HTML that needs nothing else, to be printed. */
export function differencesHtml(of: DifferenceReport): string {
  const { title, network, differences } = of;
  const list = (questions: readonly ObservedQuestion[], kind: boolean): Html =>
    html`<ul>
      ${questions.map((q) => html`<li>${kind ? `${QUESTION[q.kind]}: ` : ''}${q.text}</li>`)}
    </ul>`;
  const [deviating, open] = [byWeight(network.questions, true), byWeight(network.questions, false)];
  const body = html`<h1>As built against ${title}</h1>
    <p class="quiet">${headLine(of)}</p>
    ${
      deviating.length > 0
        ? html`<h2>Devices that deviate</h2>
            <div class="alarm">${list(deviating, false)}</div>`
        : ''
    }
    <h2>Differences</h2>
    ${table(HEADS, gatherTrees(differences).map(cells), NONE)}
    ${
      open.length > 0
        ? html`<h2>Open questions</h2>
            ${list(open, true)}`
        : ''
    }
  </body>`;
  return page(`As built against ${title}`, STYLE, body);
}
