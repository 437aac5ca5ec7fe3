/** The sections of a report, each from the design and what is known of it. */
import { aboutName, groupBy, linkSpeed, portsOf, modeOf, settingWords } from '../design';
import type { Bundle, Design, Port, Switch } from '../design';
import { treeWords } from '../goals';
import { GLOSSARY, MODE_WORDS } from '../messages';
import { bundleVerdicts, mstConfigOf, mstSwitches, OUTCOME_WORDS } from '../network';
import { failingWords, linkEnds, outageWords } from '../review';
import type { Failure, Finding } from '../review';
import { rehearse } from '../simulation';
import { count, grouped, rateWords, seconds } from '../standard';
import { gapsOf, storyOf } from '../trace';
import { blockedPorts, explainTree, nextRoot, rootsOf } from '../trees';
import type { SolvedDesign, SolvedTree } from '../trees';
import { NOTHING, html, table } from './html';
import type { Html } from './html';
import { shownNotes, treeDrawing } from './tree-drawing';

/** What a report is made of. */
export interface ReportSource {
  readonly solved: SolvedDesign;
  readonly findings: readonly Finding[];
  /** Worst first. */
  readonly failures: readonly Failure[];
}

const MOST_FAILURES = 40;
const MOST_STORY = 30;

/** Trees that have the same roots, roles and costs are drawn once. */
const distinct = ({ trees }: SolvedDesign): SolvedTree[][] => [
  ...groupBy(
    trees.filter((of) => rootsOf(of).length > 0),
    (of) => of.fold,
  ).values(),
];

const nameAt = (design: Design, bridge: number | undefined): string =>
  bridge === undefined || bridge < 0 ? 'none' : design.switches[bridge]!.name;

export function summary({ solved, findings, failures }: ReportSource): Html {
  const { design } = solved.topology;
  const of = (severity: string) => findings.filter((f) => f.severity === severity && f.accepted === null).length;
  const separating = failures.filter((f) => f.separates.switches.length + f.separates.hosts.length > 0).length;
  return table(
    ['what', 'how many'],
    [
      [
        'switches, links, hosts',
        `${grouped(design.switches.length)}, ${grouped(design.links.length)}, ${grouped(design.hosts.length)}`,
      ],
      ['VLANs, trees, trees that differ', `${design.vlans.length}, ${solved.trees.length}, ${distinct(solved).length}`],
      ['spanning tree', MODE_WORDS[design.mode]],
      ['findings: faults, risks, remarks', `${of('fault')}, ${of('risk')}, ${of('remark')}`],
      ['failures looked at, of which separate', `${failures.length}, ${separating}`],
    ],
    '',
  );
}

const endText = (end: ReturnType<typeof linkEnds>[number]): string =>
  'host' in end ? end.host : 'port' in end ? `${end.switch} ${end.port}` : `${end.switch} ${end.bundle}`;

export function cabling({ solved }: ReportSource): Html {
  const { design } = solved.topology;
  return table(
    ['from', 'to', 'rate', 'state'],
    design.links.map((l) => {
      const [a, b] = linkEnds(design, l);
      return [endText(a), endText(b), rateWords(linkSpeed(design, l)), l.down ? 'down' : ''];
    }),
    'The design has no link.',
  );
}

/** Notes that are shown, with the numbers by which the drawings point at them. */
export function notes({ solved }: ReportSource): Html {
  const { design } = solved.topology;
  const shown = shownNotes(design);
  if (shown.length === 0) return NOTHING;
  return table(
    ['', 'note', 'about', 'layer'],
    shown.map(({ text, about, layer }, i) => [
      i + 1,
      html`<span class="words">${text}</span>`,
      about.flatMap((id) => aboutName(design, id) ?? []).join(', '),
      layer ?? '',
    ]),
    '',
  );
}

export function trees({ solved }: ReportSource): Html {
  const groups = distinct(solved);
  if (groups.length === 0) return html`<p class="quiet">No tree runs on this design.</p>`;
  return html`${groups.map((group) => {
    const [of] = group as [SolvedTree];
    const blocked = blockedPorts(of).map((p) => {
      const { element } = solved.topology.ports[p]!;
      return `${nameAt(solved.topology.design, solved.topology.portBridge[p])} ${element.name}`;
    });
    return html`<figure>
      <figcaption>
        <h3>${treeWords(group.map((g) => g.tree))}</h3>
        <p>
          ${explainTree(solved, of).sentence}
          ${blocked.length === 0 ? 'No port is blocked.' : `Blocked: ${blocked.join(', ')}.`}
        </p>
      </figcaption>
      ${treeDrawing(solved, of)}
    </figure>`;
  })}`;
}

export function roots({ solved }: ReportSource): Html {
  const { design } = solved.topology;
  return table(
    ['tree', 'root', 'next root', 'blocked ports'],
    distinct(solved).map((group) => {
      const [of] = group as [SolvedTree];
      const [root] = rootsOf(of);
      const next = root === undefined ? -1 : nextRoot(of, root);
      return [treeWords(group.map((g) => g.tree)), nameAt(design, root), nameAt(design, next), blockedPorts(of).length];
    }),
    'No tree has a root.',
  );
}

export function instances({ solved }: ReportSource): Html {
  const { design } = solved.topology;
  const configs = groupBy(mstSwitches(design), (s) => mstConfigOf(design, s).key);
  if (configs.size === 0) return NOTHING;
  const rows = [...configs.values()].map((members) => {
    const config = mstConfigOf(design, members[0]!);
    const maps = config.instances.map(
      (i) =>
        `${i}: ${design.vlans
          .filter((v) => config.map[v.number] === i)
          .map((v) => v.number)
          .join(', ')}`,
    );
    return [config.name, config.revision, config.digest, maps.join('; '), members.map((s) => s.name).join(', ')];
  });
  return table(['region', 'revision', 'configuration digest', 'instances: VLANs', 'switches'], rows, '');
}

export function bundles({ solved }: ReportSource): Html {
  const { design } = solved.topology;
  const name = new Map(design.switches.map((s) => [s.id, s.name]));
  return table(
    ['bundle', 'kind', 'state', 'members', 'why'],
    bundleVerdicts(design).map((v) => {
      const b = design.bundles.find((x) => x.id === v.bundle)!;
      const members = v.members.map((m) => `${design.ports.find((p) => p.id === m.port)?.name ?? ''} ${m.state}`);
      return [`${name.get(b.switch)} ${b.name}`, b.kind, OUTCOME_WORDS[v.outcome], members.join(', '), v.sentence];
    }),
    'The design has no bundle.',
  );
}

/** What identifies or places a thing is no setting; what a bundle is stands beside it. */
const NO_SETTING = new Set(['id', 'name', 'mac', 'x', 'y', 'switch', 'number', 'speed', 'tier', 'group', 'members']);

/** `priority 4096; root guard`: every setting that is made, entries of tables one by one. */
const settingsOf = (design: Design, kind: 'switch' | 'port' | 'bundle', element: Port | Switch | Bundle): string =>
  Object.entries(element)
    .flatMap(([field, value]: [string, unknown]) => {
      if (NO_SETTING.has(field) || value === undefined || value === false) return [];
      if (typeof value !== 'object' || value === null || Array.isArray(value))
        return [settingWords(design, kind, field, value)];
      return Object.entries(value).map(([key, v]) => settingWords(design, kind, `${field}.${key}`, v));
    })
    .join('; ');

export function settings({ solved }: ReportSource): Html {
  const { design } = solved.topology;
  return html`${design.switches.map((s) => {
    const elements = [...portsOf(design, s.id), ...design.bundles.filter((b) => b.switch === s.id)];
    const rows = elements.map((p) => [
      p.name,
      'members' in p ? 'bundle' : rateWords(p.speed),
      settingsOf(design, 'members' in p ? 'bundle' : 'port', p) || 'as usual',
    ]);
    return html`<section class="device">
      <h3>${s.name}</h3>
      <p>${s.mac}, ${MODE_WORDS[modeOf(design, s)]}. ${settingsOf(design, 'switch', s) || 'All settings as usual.'}</p>
      ${table(['port', 'rate', 'settings'], rows, 'No port.')}
    </section>`;
  })}`;
}

export function findings(source: ReportSource): Html {
  return table(
    ['severity', 'finding', 'accepted'],
    source.findings.map((f) => [f.severity, f.sentence, f.accepted ?? '']),
    'Nothing found.',
  );
}

export function failures({ solved, failures: all }: ReportSource): Html {
  const { design } = solved.topology;
  const name = (id: string) =>
    design.switches.find((s) => s.id === id)?.name ?? design.hosts.find((h) => h.id === id)?.name ?? id;
  const rows = all
    .slice(0, MOST_FAILURES)
    .map((f) => [
      failingWords(design, f.elements),
      [...f.separates.switches, ...f.separates.hosts].map(name).join(', '),
      f.separates.vlans.join(', '),
      f.goalsBroken.length,
      outageWords(f.outage),
    ]);
  const left = all.length - rows.length;
  return html`${table(['lost', 'separates', 'VLANs partitioned', 'goals broken', 'outage'], rows, 'Nothing can fail.')}${left > 0 ? html`<p class="quiet">and ${count(left, 'failure')} with less effect</p>` : NOTHING}`;
}

export function rehearsals({ solved }: ReportSource): Html {
  const { design } = solved.topology;
  if (design.scripts.length === 0) return html`<p class="quiet">The design has no script.</p>`;
  return html`${design.scripts.map((script) => {
    const trace = rehearse(design, script);
    const host = (id: string) => design.hosts.find((h) => h.id === id)?.name ?? id;
    const gaps = trace.contacts.map((lane) => [
      `${host(lane.from)} – ${host(lane.to)}`,
      `VLAN ${lane.vlan}`,
      gapsOf(lane)
        .map(({ from, to }) => (to === null ? `from ${seconds(from)} to the end` : seconds(to - from)))
        .join(', ') || 'none',
    ]);
    const story = storyOf(design, trace).slice(0, MOST_STORY);
    return html`<h3>${script.name}</h3>
      ${table(['pair', 'VLAN', 'without contact'], gaps, 'No pair of hosts is probed.')}
      <ol class="story">
        ${story.map((l) => html`<li><span>${seconds(l.at)}</span> ${l.text}</li>`)}
      </ol>`;
  })}`;
}

export function glossary(): Html {
  const terms = Object.values(GLOSSARY).map(
    ({ term, sentence }) =>
      html`<dt>${term}</dt>
        <dd>${sentence}</dd>`,
  );
  return html`<dl>${terms}</dl>`;
}
