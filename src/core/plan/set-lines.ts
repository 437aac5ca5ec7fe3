/** What a piece of work sets, line by line, in the words of the standard: what it was and what it becomes. */
import {
  bundleById,
  costInForce,
  hostById,
  linkById,
  linkAt,
  linkSpeed,
  modeOf,
  portById,
  portPriorityInForce,
  priorityInForce,
  segmentById,
  settingName,
  switchById,
} from '../design';
import type { Bundle, Design, Edit, LinkEnd, Port, Switch, TreeKey } from '../design';
import { MODE_WORDS } from '../messages';
import { mstConfigOf } from '../network';
import { BRIDGE_PRIORITY, PORT_PRIORITY, defaultPathCost, formatVlanRanges } from '../standard';

export interface SetLine {
  readonly what: string;
  readonly from: string;
  readonly to: string;
}

/** A line with the entries of a table that it is of. */
interface Draft extends SetLine {
  readonly vlans: readonly number[];
  readonly instances: readonly number[];
}

const line = (what: string, from: string, to: string): Draft => ({ what, from, to, vlans: [], instances: [] });

const onOff = (value: unknown): string => (value === true ? 'on' : 'off');
const shown = (value: unknown): string =>
  value === undefined || value === null
    ? 'not set'
    : typeof value === 'boolean'
      ? onOff(value)
      : Array.isArray(value)
        ? value.join(', ')
        : String(value);

/** Mb/s that the default cost of a port follows. */
function speedAt(design: Design, port: Port | Bundle): number {
  if ('members' in port)
    return (portById(design, port.members[0] ?? '')?.speed ?? 1000) * Math.max(1, port.members.length);
  const link = linkAt(design, port.id);
  return link ? linkSpeed(design, link) : port.speed;
}

const keyOf = (field: string, key: string | undefined): TreeKey => {
  if (key === undefined) return { vlan: null, instance: null };
  return field.startsWith('vlan') ? { vlan: Number(key), instance: null } : { vlan: null, instance: Number(key) };
};

/** The value that is in force of a setting that has a default: as a number with where it comes from. */
function inForce(
  design: Design,
  element: Port | Bundle | Switch,
  field: string,
  key: string | undefined,
): string | null {
  const own = (element as unknown as Record<string, unknown>)[field];
  const set = key === undefined ? own !== undefined : (own as Record<string, unknown> | undefined)?.[key] !== undefined;
  const said = (value: number, standard: boolean) => `${value}${set || !standard ? '' : ', the default'}`;
  const tree = keyOf(field, key);
  const isPort = 'switch' in element;
  if (/riority$/.test(field) && !field.startsWith('lacp')) {
    if (key === undefined) {
      const value = (own as number | undefined) ?? (isPort ? PORT_PRIORITY.default : BRIDGE_PRIORITY.default);
      return said(value, true);
    }
    const { value, source } = isPort
      ? portPriorityInForce(design, element, tree)
      : priorityInForce(design, element, tree);
    return source === 'all-trees' ? `${value}, as for all` : said(value, source === 'default');
  }
  if (!/ost$/.test(field) || !isPort) return null;
  const scale = switchById(design, element.switch)?.costScale ?? design.costScale;
  const bySpeed = defaultPathCost(speedAt(design, element), scale);
  const { value, source } =
    key === undefined
      ? { value: (own as number | undefined) ?? bySpeed, source: own === undefined ? 'default' : 'own' }
      : costInForce(design, element, tree, bySpeed);
  const origin =
    source === 'default' ? ', by speed' : key !== undefined && source === 'all-trees' ? ', as for all' : '';
  return `${value}${origin}`;
}

const wordsOf = (field: string, value: unknown): string => {
  if (field === 'protocol') return MODE_WORDS[value as keyof typeof MODE_WORDS];
  if (field === 'vlans') return value === undefined ? 'all' : String(value);
  return shown(value);
};

const valueOf = (element: object | undefined, field: string, key: string | undefined): unknown => {
  const own = (element as Record<string, unknown> | undefined)?.[field];
  return key === undefined ? own : (own as Record<string, unknown> | undefined)?.[key];
};

/** One field of a switch, port or bundle. */
function fieldLine(before: Design, after: Design, edit: Extract<Edit, { type: 'set' }>): Draft {
  const [field, key] = edit.field.split('.') as [string, string?];
  const find = (d: Design) =>
    edit.kind === 'switch'
      ? switchById(d, edit.id)
      : edit.kind === 'port'
        ? portById(d, edit.id)
        : bundleById(d, edit.id);
  const [was, is] = [find(before)!, find(after)!];
  const name = edit.kind === 'switch' ? '' : `${edit.kind} ${is.name}, `;
  const state = (d: Design, e: typeof is) => inForce(d, e, field, key) ?? wordsOf(field, valueOf(e, field, key));
  const draft = line(`${name}${settingName(edit.kind, field)}`, state(before, was), state(after, is));
  if (edit.kind === 'switch' && field === 'protocol')
    return { ...draft, from: MODE_WORDS[modeOf(before, was as Switch)], to: MODE_WORDS[modeOf(after, is as Switch)] };
  if (field === 'off')
    return line(
      'power',
      valueOf(was, field, key) === true ? 'off' : 'on',
      valueOf(is, field, key) === true ? 'off' : 'on',
    );
  if (field === 'down')
    return line(
      `port ${is.name}`,
      valueOf(was, field, key) === true ? 'shut' : 'open',
      valueOf(is, field, key) === true ? 'shut' : 'open',
    );
  const onlySwitched = typeof (valueOf(is, field, key) ?? valueOf(was, field, key)) === 'boolean';
  const plain = onlySwitched
    ? { ...draft, from: onOff(valueOf(was, field, key)), to: onOff(valueOf(is, field, key)) }
    : draft;
  if (key === undefined) return plain;
  return field.startsWith('vlan') ? { ...plain, vlans: [Number(key)] } : { ...plain, instances: [Number(key)] };
}

/** What changes of the region of a switch: name, revision, map. */
function regionLines(before: Design, after: Design, id: string): Draft[] {
  const [was, is] = [mstConfigOf(before, switchById(before, id)!), mstConfigOf(after, switchById(after, id)!)];
  const vlansIn = ({ map }: typeof was, instance: number) =>
    formatVlanRanges([...map.keys()].filter((v) => v > 0 && v < 4095 && map[v] === instance)) || 'none';
  const instances = [...new Set([...was.instances, ...is.instances])].sort((a, b) => a - b);
  return [
    line('region name', was.name, is.name),
    line('region revision', String(was.revision), String(is.revision)),
    ...instances.map((i) => line(`VLANs of instance ${i}`, vlansIn(was, i), vlansIn(is, i))),
  ].filter((l) => l.from !== l.to);
}

const endWords = (design: Design, end: LinkEnd): string => {
  if ('host' in end) return hostById(design, end.host)?.name ?? end.host;
  const port = portById(design, end.port);
  return `${switchById(design, port?.switch ?? '')?.name} ${port?.name ?? end.port}`;
};

const bundleWords = (design: Design, { members, kind, activity }: Bundle): string =>
  `ports ${members.map((m) => portById(design, m)?.name ?? m).join(', ')}, ${kind === 'lacp' ? `LACP ${activity ?? 'active'}` : kind}`;

/** An element that comes or goes. */
function wholeLine(design: Design, kind: string, id: string, comes: boolean): Draft | null {
  const turn = (what: string, there: string, gone: string) => line(what, comes ? gone : there, comes ? there : gone);
  switch (kind) {
    case 'link': {
      const link = linkById(design, id)!;
      return turn(`cable ${endWords(design, link.a)} – ${endWords(design, link.b)}`, 'plugged in', 'not plugged in');
    }
    case 'bundle': {
      const bundle = bundleById(design, id)!;
      return turn(`bundle ${bundle.name}`, bundleWords(design, bundle), 'none');
    }
    case 'switch':
      return turn(`switch ${switchById(design, id)!.name}`, 'in place', 'not there');
    case 'host':
      return turn(`host ${hostById(design, id)!.name}`, 'in place', 'not there');
    case 'segment':
      return turn(`segment ${segmentById(design, id)!.name}`, 'in place', 'not there');
    case 'vlan':
      return turn(`VLAN ${design.vlans.find((v) => v.id === id)!.number}`, 'made', 'none');
    case 'pair':
      return turn('pair of switches', `domain ${design.pairs.find((p) => p.id === id)!.domain}`, 'none');
    default:
      return null;
  }
}

function drafts(before: Design, after: Design, edits: readonly Edit[]): Draft[] {
  const regions = new Set<string>();
  return edits.flatMap((edit): Draft[] => {
    if (edit.type === 'settings') return [];
    if (edit.type !== 'set') {
      const comes = edit.type === 'add';
      const found = wholeLine(comes ? after : before, edit.kind, edit.type === 'add' ? edit.value.id : edit.id, comes);
      return found ? [found] : [];
    }
    if (edit.kind === 'switch' && /^(region|mstName|mstRevision|vlanInstance)/.test(edit.field)) {
      if (regions.has(edit.id)) return [];
      regions.add(edit.id);
      return regionLines(before, after, edit.id);
    }
    if (edit.kind === 'switch' || edit.kind === 'port' || edit.kind === 'bundle')
      return [fieldLine(before, after, edit)];
    return [otherLine(before, after, edit)];
  });
}

function otherLine(before: Design, after: Design, edit: Extract<Edit, { type: 'set' }>): Draft {
  const link = edit.kind === 'link' ? linkById(after, edit.id) : undefined;
  if (link && edit.field === 'down') {
    const [from, to] = edit.value === true ? ['plugged in', 'taken out'] : ['taken out', 'plugged in'];
    return line(`cable ${endWords(after, link.a)} – ${endWords(after, link.b)}`, from, to);
  }
  const moved = link && (edit.field === 'a' || edit.field === 'b') ? edit.field : null;
  const old = moved && linkById(before, edit.id);
  if (link && moved && old)
    return line(
      `cable at ${endWords(after, link[moved === 'a' ? 'b' : 'a'])}, far end`,
      endWords(before, old[moved]),
      endWords(after, link[moved]),
    );
  const name =
    edit.kind === 'host'
      ? hostById(after, edit.id)?.name
      : edit.kind === 'segment'
        ? segmentById(after, edit.id)?.name
        : undefined;
  const list = (d: Design) =>
    ({ link: d.links, host: d.hosts, segment: d.segments, pair: d.pairs })[edit.kind as 'link'] ?? [];
  const value = (d: Design) =>
    valueOf(
      list(d).find((e) => e.id === edit.id),
      edit.field,
      undefined,
    );
  const said = (v: unknown) =>
    typeof v === 'object' && v !== null && !Array.isArray(v) ? JSON.stringify(v) : shown(v);
  return line(
    `${edit.kind} ${name ?? edit.id}, ${settingName(edit.kind, edit.field)}`,
    said(value(before)),
    said(value(after)),
  );
}

/** Entries of one table that change alike are one line. */
export function setLines(before: Design, after: Design, edits: readonly Edit[]): SetLine[] {
  const found = new Map<string, Draft>();
  for (const draft of drafts(before, after, edits)) {
    const table = draft.vlans.length > 0 ? 'vlans' : draft.instances.length > 0 ? 'instances' : '';
    const key = [draft.what, draft.from, draft.to, table].join('\n');
    const known = found.get(key);
    found.set(
      key,
      known
        ? { ...draft, vlans: [...known.vlans, ...draft.vlans], instances: [...known.instances, ...draft.instances] }
        : draft,
    );
  }
  return [...found.values()].map(({ what, from, to, vlans, instances }) => ({
    what: what + scopeWords(vlans, instances),
    from,
    to,
  }));
}

function scopeWords(vlans: readonly number[], instances: readonly number[]): string {
  if (vlans.length > 0)
    return ` for ${vlans.length > 1 ? 'VLANs' : 'VLAN'} ${formatVlanRanges(vlans).replaceAll(',', ', ')}`;
  const named = instances.filter((i) => i !== 0).sort((a, b) => a - b);
  const parts = [
    ...(instances.includes(0) ? ['the CIST'] : []),
    ...(named.length > 0 ? [`${named.length > 1 ? 'instances' : 'instance'} ${named.join(', ')}`] : []),
  ];
  return parts.length > 0 ? ` for ${parts.join(' and ')}` : '';
}
