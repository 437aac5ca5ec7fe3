/** The difference between two designs as pieces of work: what one person does at one device in one go. */
import { bundleById, differenceBetween, hostById, linkById, modeOf, portById, switchById } from '../design';
import type { Design, Edit, Kind, LinkEnd } from '../design';

/** `temporary`: not in the difference, but it helps on the way. */
export const WORK_KINDS = [
  'vlan-list',
  'mode',
  'region',
  'settings',
  'vlans',
  'bundle',
  'pair',
  'port',
  'cable',
  'host',
  'power',
  'device',
  'temporary',
] as const;
export type WorkKind = (typeof WORK_KINDS)[number];

export interface Work {
  readonly id: string;
  readonly kind: WorkKind;
  /** Id of the switch, or of the host, that is worked at; null: every switch. */
  readonly device: string | null;
  /** The far end of a cable, or the other switch of a pair. */
  readonly other: string | null;
  readonly edits: readonly Edit[];
  /** Seconds to wait afterwards, as the engineer wants it; absent: none. */
  readonly pause?: number;
}

/** Kinds of work that need hands at the place, and no way over the network. */
export const isByHand = ({ kind }: Work): boolean =>
  kind === 'cable' || kind === 'host' || kind === 'power' || kind === 'device';

const SWITCH_FIELDS: Readonly<Record<string, WorkKind>> = {
  protocol: 'mode',
  region: 'region',
  mstName: 'region',
  mstRevision: 'region',
  vlanInstance: 'region',
  off: 'power',
  mac: 'device',
};

/** Settings of a port or bundle that change roles at most, and restart nothing. */
export const GENTLE_AT_PORTS = [
  'cost',
  'internalCost',
  'vlanCost',
  'instanceCost',
  'priority',
  'vlanPriority',
  'instancePriority',
  'edge',
  'autoEdge',
  'bpduGuard',
  'rootGuard',
  'loopGuard',
  'tcGuard',
] as const;

/** Settings of a port or bundle that are made in one go with those of its switch. */
const PORT_SETTINGS: ReadonlySet<string> = new Set([
  ...GENTLE_AT_PORTS,
  'bpduFilter',
  'filterYields',
  'silenceGuard',
  'helloTime',
  'oneWay',
  'oneWayInterval',
  'stormLimit',
  'stormAction',
]);

type Place = Omit<Work, 'id' | 'edits'> & { readonly key: string };

const at = (kind: WorkKind, device: string | null, key = `${kind} ${device}`, other: string | null = null): Place => ({
  kind,
  device,
  key,
  other,
});

/** An element of either design. */
const inEither = <T>(from: Design, to: Design, find: (d: Design) => T | undefined): T | undefined =>
  find(to) ?? find(from);

const ownerOf = (from: Design, to: Design, end: LinkEnd): { host: string } | { switch: string } => {
  if ('host' in end) return { host: end.host };
  return { switch: inEither(from, to, (d) => portById(d, end.port))?.switch ?? '' };
};

/** A cable: between switches a piece of work at the first of them, to a host one with the host. */
function placeOfLink(from: Design, to: Design, id: string): Place {
  const link = inEither(from, to, (d) => linkById(d, id))!;
  const ends = [link.a, link.b].map((e) => ownerOf(from, to, e));
  const host = ends.find((e) => 'host' in e);
  const owner = ends.find((e) => 'switch' in e);
  const whole = (d: Design) => host && 'host' in host && hostById(d, host.host) !== undefined;
  // A host that comes or goes takes its cables with it.
  if (host && 'host' in host && !(whole(from) && whole(to))) return at('host', host.host);
  const other = host ?? ends.find((e) => e !== owner);
  const name = other && ('host' in other ? other.host : other.switch);
  return at('cable', owner && 'switch' in owner ? owner.switch : null, `cable ${id}`, name ?? null);
}

function placeOfPort(from: Design, to: Design, kind: 'port' | 'bundle', id: string, field: string | null): Place {
  const find = (d: Design) => (kind === 'port' ? portById(d, id) : bundleById(d, id));
  const device = inEither(from, to, find)!.switch;
  if (!switchById(from, device) || !switchById(to, device)) return at('device', device);
  if (field === null) return at(kind === 'bundle' ? 'bundle' : 'device', device, `${kind} ${id}`);
  const [outer] = field.split('.') as [string];
  if (PORT_SETTINGS.has(outer)) return at('settings', device);
  if (outer === 'vlans' || outer === 'native') return at('vlans', device, `vlans ${id}`);
  return at(kind, device, `${kind} ${id}`);
}

function modeChanges(from: Design, to: Design, id: string): boolean {
  const [was, is] = [switchById(from, id), switchById(to, id)];
  return was !== undefined && is !== undefined && modeOf(from, was) !== modeOf(to, is);
}

/** Whether a piece of work sets what makes a region. */
export const setsRegion = ({ edits }: Work): boolean =>
  edits.some((e) => e.type === 'set' && e.kind === 'switch' && SWITCH_FIELDS[e.field.split('.')[0]!] === 'region');

/** Where the work of an edit is done, and with what else in one go. */
function placeOf(from: Design, to: Design, edit: Exclude<Edit, { type: 'settings' }>): Place {
  const id = edit.type === 'add' ? edit.value.id : edit.id;
  const field = edit.type === 'set' ? edit.field : null;
  const kind: Kind = edit.kind;
  switch (kind) {
    case 'vlan':
      return at('vlan-list', null, `vlan-list ${edit.type === 'remove' ? 'remove' : 'add'}`);
    case 'switch': {
      const work = field === null ? 'device' : (SWITCH_FIELDS[field.split('.')[0]!] ?? 'settings');
      // What a switch is to run, and the region that it runs it in, are set in one go.
      return at(work === 'region' && modeChanges(from, to, id) ? 'mode' : work, id);
    }
    case 'port':
    case 'bundle':
      return placeOfPort(from, to, kind, id, field);
    case 'link':
      return placeOfLink(from, to, id);
    case 'host':
      return at('host', id);
    case 'pair': {
      const pair = inEither(from, to, (d) => d.pairs.find((p) => p.id === id));
      return at('pair', pair?.switches[0] ?? null, `pair ${id}`, pair?.switches[1] ?? null);
    }
    default:
      // A segment is a hub: it stands for itself, and is worked at by hand.
      return at('cable', null, `${kind} ${id}`);
  }
}

const ORDER = new Map(WORK_KINDS.map((kind, i) => [kind, i]));

/**
 * The pieces of work that lead from one design to another, in the order in which they stand in the tables: device by device.
 * Both designs are those of a frame: no setting of the document as a whole differs.
 */
export function gatherWork(from: Design, to: Design): Work[] {
  const found = new Map<string, Place & { edits: Edit[] }>();
  for (const edit of differenceBetween(from, to)) {
    if (edit.type === 'settings') continue;
    const place = placeOf(from, to, edit);
    const known = found.get(place.key);
    if (known) known.edits.push(edit);
    else found.set(place.key, { ...place, edits: [edit] });
  }
  const row = new Map(
    [...from.switches, ...to.switches.filter((s) => !switchById(from, s.id))].map((s, i) => [s.id, i]),
  );
  const rank = (w: Place) => [w.device === null ? -1 : (row.get(w.device) ?? row.size), ORDER.get(w.kind)!] as const;
  return [...found.values()]
    .sort((a, b) => rank(a)[0] - rank(b)[0] || rank(a)[1] - rank(b)[1])
    .map(({ key, kind, device, other, edits }) => ({ id: key, kind, device, other, edits }));
}
