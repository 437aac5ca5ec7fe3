/** One edit in words, for lists of what a proposal or a change would set. */
import { differenceBetween } from './difference';
import { applyEdits } from './edits';
import type { Edit } from './edits';
import { clipped } from '../messages';
import { count } from '../standard';
import {
  aboutName,
  bundleById,
  hostById,
  linkById,
  noteById,
  portById,
  portLabel,
  segmentById,
  switchById,
} from './look-ups';
import type { Design, Kind, LinkEnd } from './schema';

const FIELD: Readonly<Record<string, string>> = {
  priority: 'priority',
  vlanPriority: 'priority',
  instancePriority: 'priority',
  cost: 'cost',
  internalCost: 'internal cost',
  vlanCost: 'cost',
  instanceCost: 'cost',
  protocol: 'spanning tree',
  region: 'region',
  map: 'VLANs',
  shared: 'shared number',
  peer: 'peer links',
  helloTime: 'hello time',
  maxAge: 'maximum age',
  forwardDelay: 'forward delay',
  holdCount: 'hold count',
  ageingTime: 'ageing time',
  ageStep: 'age step',
  maxTrees: 'trees at most',
  guardRecovery: 'recovery from BPDU guard',
  oneWayRecovery: 'recovery from a one-way link',
  stormRecovery: 'recovery from a storm',
  oneWay: 'one-way detection',
  oneWayInterval: 'keepalive interval',
  stormLimit: 'storm limit',
  stormAction: 'storm action',
  minActive: 'minimum of members',
  maxActive: 'maximum of members',
  minRate: 'minimum rate',
  systemMac: 'LACP system',
  systemPriority: 'LACP system priority',
  returnDelay: 'wait before a member returns',
  lacpPriority: 'LACP priority',
  costScale: 'cost scale',
  bundleCost: 'bundle cost',
  mstName: 'region name',
  mstRevision: 'region revision',
  linkType: 'link type',
  native: 'untagged VLAN',
  vlans: 'VLANs',
};

/** An element as people call it. */
function subjectWords(design: Design, kind: string, id: string): string {
  const port = portById(design, id);
  if (kind === 'port' && port) return `${switchById(design, port.switch)?.name} ${port.name}`;
  const bundle = bundleById(design, id);
  if (kind === 'bundle' && bundle) return `${switchById(design, bundle.switch)?.name} ${bundle.name}`;
  const pair = kind === 'pair' ? design.pairs.find((p) => p.id === id) : undefined;
  if (pair) return `pair ${pair.switches.map((s) => switchById(design, s)?.name ?? s).join(' + ')}`;
  const link = kind === 'link' ? linkById(design, id) : undefined;
  if (link)
    return [link.a, link.b]
      .map((e) => ('port' in e ? portLabel(design, e.port) : (hostById(design, e.host)?.name ?? e.host)))
      .join(' – ');
  const named =
    kind === 'switch'
      ? switchById(design, id)
      : kind === 'host'
        ? hostById(design, id)
        : kind === 'segment'
          ? segmentById(design, id)
          : kind === 'region'
            ? design.regions.find((r) => r.id === id)
            : undefined;
  if (named) return named.name;
  const reading = kind === 'reading' ? design.readings.find((r) => r.id === id) : undefined;
  if (reading) return `of ${reading.at.slice(0, 16).replace('T', ' ')}`;
  const note = kind === 'note' ? noteById(design, id) : undefined;
  if (note) return `note '${clipped(note.text)}'`;
  if (kind === 'cableCost') return cableCostWords(design, id);
  const vlan = kind === 'vlan' ? design.vlans.find((v) => v.id === id) : undefined;
  return vlan ? `VLAN ${vlan.number}` : `${kind} ${id}`;
}

/** Between which places a cost of cables is. */
function cableCostWords(design: Design, id: string): string {
  const row = design.cableCosts.find((c) => c.id === id);
  if (!row) return 'of a cable';
  const end = (place: typeof row.from): string =>
    'switch' in place
      ? (switchById(design, place.switch)?.name ?? place.switch)
      : 'tier' in place
        ? place.tier
        : place.group;
  return `${end(row.from)} – ${end(row.to)}`;
}

/** Settings that are on or off. */
const SWITCHED: Readonly<Record<string, string>> = {
  down: 'down',
  off: 'powered off',
  edge: 'edge port',
  autoEdge: 'automatic edge port',
  bpduGuard: 'BPDU guard',
  bpduFilter: 'BPDU filter',
  rootGuard: 'root guard',
  loopGuard: 'loop guard',
  tcGuard: 'topology change guard',
  filterYields: 'yielding BPDU filter',
  silenceGuard: 'silence guard',
  edgeGuard: 'BPDU guard on edge ports',
  edgeFilter: 'BPDU filter on edge ports',
  keepsWorking: 'keeps members that carry',
  individual: 'individual members',
};

/** Fields that name other things of the design by their ids. */
const REFERS: ReadonlySet<string> = new Set([
  'region',
  'members',
  'ports',
  'peer',
  'keepalive',
  'a',
  'b',
  'switch',
  'switches',
  'links',
  'next',
  'port',
  'avoid',
  'about',
  'from',
  'to',
]);

/** What an id stands for, as people call it; the id itself where nothing has it. */
function calledBy(design: Design, id: string): string {
  if (portById(design, id)) return subjectWords(design, 'port', id);
  if (bundleById(design, id)) return subjectWords(design, 'bundle', id);
  return aboutName(design, id) ?? design.regions.find((r) => r.id === id)?.name ?? id;
}

/** A value with names in the place of ids. */
function called(design: Design, value: unknown): unknown {
  if (typeof value === 'string') return calledBy(design, value);
  if (Array.isArray(value)) return value.map((v) => called(design, v)).join(', ');
  const end = value as Partial<Record<'port' | 'host' | 'switch', string>> | null;
  const id = end?.port ?? end?.host ?? end?.switch;
  return typeof id === 'string' ? calledBy(design, id) : value;
}

const shown = (value: unknown): string =>
  value === null ? 'back to the default' : typeof value === 'object' ? JSON.stringify(value) : String(value);

/** `core-east: priority 4096 for VLAN 199`, of an edit that leads to or away from `design`. */
export function editWords(design: Design, edit: Edit): string {
  if (edit.type === 'settings') return `design: ${edit.field} ${edit.value}`;
  if (edit.type !== 'set') {
    const id = edit.type === 'add' ? edit.value.id : edit.id;
    const kind = edit.kind === 'cableCost' ? 'cable cost' : edit.kind;
    return `${edit.type} ${kind} ${subjectWords(design, edit.kind, id)}`;
  }
  return `${subjectWords(design, edit.kind, edit.id)}: ${settingWords(design, edit.kind, edit.field, edit.value)}`;
}

/** Name of a field: `port priority`, `root guard`, `VLANs`. */
export function settingName(kind: string, field: string): string {
  const ofPort = kind === 'port' || kind === 'bundle';
  if (ofPort && /^(vlanP|instanceP|p)riority$/.test(field)) return 'port priority';
  return SWITCHED[field] ?? FIELD[field] ?? field;
}

/** `priority 4096 for VLAN 199`, `root guard`: a setting as people call it; `field` may name one entry of a table. */
export function settingWords(design: Design, kind: string, name: string, value: unknown): string {
  const [field, key] = name.split('.') as [string, string?];
  const switched = SWITCHED[field];
  if (switched !== undefined && kind !== 'goal') return value === true ? switched : `no longer ${switched}`;
  const what = settingName(kind, field);
  const scope =
    key === undefined
      ? ''
      : field.startsWith('vlan')
        ? ` for VLAN ${key}`
        : ` for ${key === '0' ? 'the CIST' : `instance ${key}`}`;
  return `${what} ${shown(REFERS.has(field) ? called(design, value) : value)}${scope}`;
}

/** How many cables a list of edits adds, and how many settings it makes. */
export const workIn = (edits: readonly Edit[]): { cables: number; settings: number } => ({
  cables: edits.filter((e) => e.type === 'add' && e.kind === 'link').length,
  settings: edits.filter((e) => e.type === 'set' || e.type === 'settings').length,
});

/** `1 new cable and 2 settings`; of other changes how many they are. */
export function workWords(edits: readonly Edit[]): string {
  const { cables, settings } = workIn(edits);
  if (cables + settings === 0) return count(edits.length, 'change');
  return [cables > 0 && count(cables, 'new cable'), settings > 0 && count(settings, 'setting')]
    .filter(Boolean)
    .join(' and ');
}

/** `gate 3 (new port)`, `ferry-server`: an end of a new cable. */
function newEndWords(design: Design, end: LinkEnd, isNew: (port: string) => boolean): string {
  if ('host' in end) return hostById(design, end.host)?.name ?? end.host;
  const port = portById(design, end.port);
  if (!port) return end.port;
  return `${switchById(design, port.switch)?.name} ${port.name}${isNew(end.port) ? ' (new port)' : ''}`;
}

/**
 * A list of edits in words, a line each: what it adds is named as the design has it then, what it removes as it was. Ports that are
 * added for a cable stand in its line.
 */
export function editListWords(design: Design, edits: readonly Edit[]): string[] {
  const applied = applyEdits(design, edits);
  const after = applied.ok ? applied.design : design;
  const added = (kind: Kind) =>
    new Set(edits.flatMap((e) => (e.type === 'add' && e.kind === kind ? [e.value.id] : [])));
  const [links, ports] = [added('link'), added('port')];
  const ends = after.links.flatMap((l) => (links.has(l.id) ? [l.a, l.b] : []));
  const cabled = new Set(ends.flatMap((end) => ('port' in end && ports.has(end.port) ? [end.port] : [])));
  return edits.flatMap((edit) => {
    if (edit.type === 'add' && edit.kind === 'port' && cabled.has(edit.value.id)) return [];
    const link = edit.type === 'add' && edit.kind === 'link' ? linkById(after, edit.value.id) : undefined;
    if (!link) return [editWords(edit.type === 'remove' ? design : after, edit)];
    return [`new cable ${[link.a, link.b].map((end) => newEndWords(after, end, (p) => ports.has(p))).join(' – ')}`];
  });
}

/** What differs between two designs, a line for each edit that leads from one to the other. */
export function differenceWords(from: Design, to: Design): string[] {
  return differenceBetween(from, to).map((edit) => editWords(edit.type === 'remove' ? from : to, edit));
}
