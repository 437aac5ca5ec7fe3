/** Reads the network that is there, from files, folders and agents; draws it, and holds it against a design. */
import { readFile, writeFile } from 'node:fs/promises';
import type { ObservedNetwork } from '../core/design';
import { observeMessages as say } from '../core/messages';
import {
  asBuilt,
  compareWithDesign,
  differencesCsv,
  differencesHtml,
  differencesMarkdown,
  packObserved,
} from '../core/observe';
import type { Difference, DifferenceReport, Observation } from '../core/observe';
import { snmpCredentials, snmpFence } from '../api/observe';
import type { SnmpCredentials } from '../api/observe';
import { credentialsFrom } from '../server/snmp/credentials';
import { discover } from '../server/snmp/discover';
import { readTarget } from '../server/snmp/walk';
import { complain, print, readDesignFile } from './files';
import { observationsIn } from './observed-files';

export interface ObserveOptions {
  readonly against?: string;
  readonly out?: string;
  readonly json?: boolean;
  readonly report?: string;
  readonly credentials?: string;
  readonly follow: boolean;
  readonly fence?: readonly string[];
  readonly depth?: string;
  readonly atOnce?: string;
  readonly most?: string;
  readonly pause?: string;
}

const isAgent = (source: string): boolean => source.startsWith('snmp://');

/** Credentials of a file, or of the environment; null after saying that there are none. */
async function credentialsOf(file: string | undefined): Promise<SnmpCredentials | null> {
  if (file === undefined) {
    const own = credentialsFrom(process.env);
    if (!own) complain(say['no-credentials']());
    return own;
  }
  try {
    const read = snmpCredentials.safeParse(JSON.parse(await readFile(file, 'utf8')));
    if (read.success) return read.data;
    // What the file holds is a secret: of a fault only its place is shown.
    complain(
      `${file}: ${read.error.issues.map((i) => i.path.join('.') || 'the whole').join(', ')}: not as {"version": "2c", "community": …} or {"version": "3", "user": …}.`,
    );
  } catch (error) {
    complain(`${file}: cannot be read as JSON: ${(error as NodeJS.ErrnoException).code ?? 'it is not complete'}.`);
  }
  return null;
}

async function fromAgents(sources: readonly string[], options: ObserveOptions): Promise<readonly Observation[] | null> {
  const seeds = sources.map((s) => ({ text: s, target: readTarget(s) }));
  const bad = seeds.find((s) => s.target === null);
  if (bad) {
    complain(say['bad-address']({ text: bad.text }));
    return null;
  }
  const credentials = await credentialsOf(options.credentials);
  if (!credentials) return null;
  const fence = snmpFence.safeParse({
    follow: options.follow,
    ...(options.fence ? { networks: options.fence } : {}),
    ...(options.depth === undefined ? {} : { depth: Number(options.depth) }),
    ...(options.atOnce === undefined ? {} : { atOnce: Number(options.atOnce) }),
    ...(options.most === undefined ? {} : { most: Number(options.most) }),
    ...(options.pause === undefined ? {} : { pause: Number(options.pause) }),
  });
  if (!fence.success) {
    complain(
      `--${fence.error.issues[0]!.path[0] === 'networks' ? 'fence' : String(fence.error.issues[0]!.path[0]).replace('atOnce', 'at-once')}: ${fence.error.issues[0]!.message}.`,
    );
    return null;
  }
  const stop = new AbortController();
  process.once('SIGINT', () => stop.abort());
  const found = await discover({
    seeds: seeds.map((s) => s.target!),
    credentials,
    fence: fence.data,
    signal: stop.signal,
    progress: () => undefined,
  });
  found.faults.forEach(complain);
  return found.observations;
}

const asJson = (network: ObservedNetwork, differences: readonly Difference[]) => ({
  ...network,
  differences: differences.map(({ device, field, designed, observed, verdict }) => ({
    device,
    field,
    designed,
    observed,
    verdict,
  })),
});

const CERTAINTY = { lldp: '', lacp: ' (inferred from LACP)', bpdu: ' (inferred from BPDUs)' } as const;

function asText(
  { switches, links, segments, bundles, trees, questions }: ObservedNetwork,
  differences: readonly Difference[] | null,
): string {
  const lines = [
    ...switches.map(
      (s) =>
        `switch  ${s.name}  ${[s.mac, s.priority === null ? null : `priority ${s.priority}`, s.protocol].filter(Boolean).join('  ')}`,
    ),
    ...links.map(({ a, b, certainty }) => `link  ${a.switch} ${a.port} – ${b.switch} ${b.port}${CERTAINTY[certainty]}`),
    ...segments.map(({ ports }) => `shared  ${ports.map((e) => `${e.switch} ${e.port}`).join(' – ')}`),
    ...bundles.map((b) => `bundle  ${b.switch} ${b.name}  ${b.active.length} of ${b.members.length} active`),
    ...trees.map((t) => `tree  ${t.id}  root ${t.root ?? 'not told'}`),
    ...questions.map((q) => `${q.kind === 'deviates' ? 'deviates' : 'question'}  ${q.text}`),
    ...(differences ?? []).map(
      (d) =>
        `${d.verdict}  ${d.device}  ${d.field}: designed ${d.designed ?? 'nothing'}, observed ${d.observed ?? 'nothing'}`,
    ),
    ...(differences?.length === 0 ? ['As designed.'] : []),
  ];
  return `${lines.join('\n')}\n`;
}

const REPORTS: Readonly<Record<string, (of: DifferenceReport) => string>> = {
  html: differencesHtml,
  md: differencesMarkdown,
  csv: differencesCsv,
};

/** The form of a report by the end of its file's name. */
const reportForm = (file: string) => REPORTS[/\.([a-z]+)$/i.exec(file)?.[1]?.toLowerCase() ?? ''];

/** Status 0 where the network is as designed or was only drawn, 1 where something differs, 2 where nothing could be read. */
export async function observe(sources: readonly string[], options: ObserveOptions): Promise<number> {
  const against = options.against === undefined ? null : await readDesignFile(options.against);
  if (options.against !== undefined && !against) return 2;
  if (options.report !== undefined && (!against || !reportForm(options.report))) {
    complain(
      against
        ? `--report ${options.report}: ends with .html, .md or .csv.`
        : '--report tells of differences: a design to compare with is missing, --against DESIGN.json.',
    );
    return 2;
  }
  const files = sources.filter((s) => !isAgent(s));
  const agents = sources.filter(isAgent);
  const read = files.length > 0 ? await observationsIn(files) : { observations: [], read: 0 };
  if (!read) return 2;
  const asked = agents.length > 0 ? await fromAgents(agents, options) : [];
  if (!asked) return 2;
  const observations = [...read.observations, ...asked];
  if (observations.length === 0) return 2;
  const { network, design } = asBuilt(observations, 'As built');
  if (options.out !== undefined) {
    // The reading goes with its drawing: what is inferred and what is open is seen there.
    const reading = { id: 'reading', at: new Date().toISOString(), packed: await packObserved(network) };
    await writeFile(options.out, `${JSON.stringify({ ...design, readings: [reading] }, null, 2)}\n`);
  }
  const differences = against ? compareWithDesign(against, network) : null;
  if (options.report !== undefined && against) {
    const of = { title: against.name, at: new Date().toISOString(), network, differences: differences ?? [] };
    await writeFile(options.report, reportForm(options.report)!(of));
  }
  await print(
    options.json ? `${JSON.stringify(asJson(network, differences ?? []), null, 2)}\n` : asText(network, differences),
  );
  return differences && differences.length > 0 ? 1 : 0;
}
