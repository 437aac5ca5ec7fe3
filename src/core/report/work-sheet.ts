/** A plan to carry along: what to do, what to see, boxes to tick, times and names to fill in; as a page, Markdown or a table. */
import { atWords, consoleNames, lineWords, longestOutage, movesWords, outageWords, seeLines, wayBack } from '../plan';
import type { ChangePlan } from '../plan';
import { count } from '../standard';
import { csvText } from './csv';
import { html, page, table } from './html';
import type { Html } from './html';

export interface SheetOptions {
  /** `as cabled → as meant`. */
  readonly title: string;
  /** ISO date that stands in its head. */
  readonly date: string;
}

/** The figures of a plan in one line. */
export function planSummary(plan: ChangePlan): string {
  const longest = plan.steps
    .map((s) => ({ s, words: outageWords(s), at: longestOutage(s) }))
    .sort((a, b) => b.at - a.at)[0];
  const devices = new Set(plan.steps.map((s) => s.work.device)).size;
  const worst =
    !longest || longest.at === 0 ? 'no outage' : `longest outage ${longest.words}, at ${atWords(longest.s)}`;
  return `${count(plan.steps.length, 'step')} at ${count(devices, 'device')}, ${worst}`;
}

const heads = ['', 'at', 'set', 'moves', 'outage', 'see before going on', 'if it is not so', 'the way back'];

export function planMarkdown(plan: ChangePlan, { title, date }: SheetOptions): string {
  const consoles = consoleNames(plan);
  const lines = [
    `# Change plan: ${title}`,
    '',
    `${date}. ${planSummary(plan)}.`,
    ...(consoles.length > 0 ? ['', `A console is needed at: ${consoles.join(', ')}.`] : []),
    ...plan.steps.flatMap((step, i) => [
      '',
      `## ${i + 1}. ${atWords(step)}${step.work.kind === 'temporary' ? ' (temporary)' : ''}`,
      '',
      ...step.set.map((l) => `- set ${lineWords(l)}`),
      '',
      `Moves ${movesWords(step)}. Outage: ${outageWords(step)}.`,
      '',
      ...seeLines(step).map((s) => `- [ ] ${s}`),
      '',
      step.otherwise,
      '',
      `Way back: ${wayBack(step).join('; ')}.`,
      '',
      'Done at ____ by ____',
    ]),
  ];
  return `${lines.join('\n')}\n`;
}

/** What the plan sets, device by device in the order of their first step: the difference, as text. */
export function planSettings(plan: ChangePlan): string {
  const byDevice = new Map<string, string[]>();
  plan.steps.forEach((step, i) => {
    const at = atWords(step);
    byDevice.set(at, [...(byDevice.get(at) ?? []), ...step.set.map((l) => `  step ${i + 1}: ${lineWords(l)}`)]);
  });
  return `${[...byDevice].map(([at, lines]) => [at, ...lines].join('\n')).join('\n\n')}\n`;
}

export function planCsv(plan: ChangePlan): string {
  const rows = plan.steps.map((step, i) => [
    String(i + 1),
    atWords(step),
    step.work.kind,
    step.set.map(lineWords).join('; '),
    movesWords(step),
    outageWords(step),
    seeLines(step).join('; '),
    step.otherwise,
    wayBack(step).join('; '),
    '',
    '',
  ]);
  const head = ['step', 'at', 'kind', 'set', 'moves', 'outage', 'see', 'otherwise', 'way back', 'done at', 'done by'];
  return csvText([head, ...rows]);
}

const list = (lines: readonly string[], box = false): Html =>
  html`<ul class="${box ? 'boxes' : ''}">
    ${lines.map((l) => html`<li>${l}</li>`)}
  </ul>`;

const STYLE = `
  @page { size: A4 landscape; margin: 12mm 12mm 16mm; @bottom-right { content: counter(page) ' / ' counter(pages); } }
  body { font: 10pt/1.35 'IBM Plex Sans', 'Helvetica', sans-serif; color: #1b2730; margin: 1.5em; max-width: 70em; }
  h1 { font-size: 15pt; margin: 0 0 .2em; }
  .quiet { color: #4b5862; }
  .alarm { color: #b01e2e; font-weight: 600; }
  table { border-collapse: collapse; width: 100%; margin-top: 1em; }
  th { text-align: left; font-weight: 400; color: #4b5862; border-bottom: 1px solid #1b2730; padding: .2em .5em; }
  td { vertical-align: top; border-bottom: 1px solid #dad2c1; padding: .4em .5em; }
  tr { break-inside: avoid; }
  thead { display: table-header-group; }
  ul { margin: 0; padding: 0; list-style: none; }
  .boxes li { padding-left: 1.3em; text-indent: -1.3em; }
  .boxes li::before { content: '\\2610'; display: inline-block; width: 1.3em; text-indent: 0; }
  .sign td { height: 2.4em; }
  th:nth-child(2) { width: 9%; }
  th:nth-child(3), th:nth-child(8) { width: 14%; }
  th:nth-child(6) { width: 27%; }
  th:nth-child(9) { width: 9%; }
  @media print { body { margin: 0; max-width: none; } }
`;

/** One page of HTML that needs nothing else, to be printed. */
export function planHtml(plan: ChangePlan, { title, date }: SheetOptions): string {
  const consoles = consoleNames(plan);
  const rows = plan.steps.map((step, i) => [
    i + 1,
    html`<strong>${atWords(step)}</strong
      >${step.work.kind === 'temporary' ? html`<br /><span class="quiet">temporary</span>` : ''}`,
    list(step.set.map(lineWords)),
    movesWords(step),
    outageWords(step),
    list(seeLines(step), true),
    step.otherwise,
    list(wayBack(step)),
    '',
  ]);
  const body = html`<h1>Change plan: ${title}</h1>
    <p class="quiet">${date} · ${planSummary(plan)} · outages as rehearsed</p>
    ${consoles.length > 0 ? html`<p class="alarm">A console is needed at: ${consoles.join(', ')}</p>` : ''}
    ${table([...heads, 'time, name'], rows, 'No steps.')}
    <table class="sign">
      <tr>
        ${['carried out by', 'checked by', 'begun', 'finished'].map((field) => html`<td>${field}</td>`)}
      </tr>
    </table>`;
  return page(`Change plan: ${title}`, STYLE, body);
}
