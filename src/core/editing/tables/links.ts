/** The table of links: both ends in one row. */
import { bundleAt, linkById, linkSpeed, portLabel, setField, setPortCost, vlansAt } from '../../design';
import { documentMessages as say, tableMessages } from '../../messages';
import type { Design, Edit, Link } from '../../design';
import { disagreement, disagreementSentence, setVlans } from '..';
import type { Wiring } from '..';
import { isFault, numberCell, speedCell, yesCell } from './column';
import type { CellEdits, Column, Table } from './column';
import { SIDES, attachRow, createLink, endAt, ownerText, portOf, portText } from './link-rows';
import type { Side } from './link-rows';
import { nativeEdits } from './ports';

/** Edits that plug one end of a link in elsewhere. */
function replug(wiring: Wiring, link: Link, side: Side, name: string, port: string): CellEdits {
  const old = portOf(wiring.design, link, side);
  const other = portOf(wiring.design, link, side === 'a' ? 'b' : 'a');
  if (other?.name === port && ownerText(wiring.design, link, side === 'a' ? 'b' : 'a') === name)
    return { fault: say.sameEnd(portLabel(wiring.design, other.id)) };
  const before = wiring.edits.length;
  const end = endAt(wiring, name, port, old?.speed ?? 1000, old?.id);
  if ('fault' in end) return end;
  return [...wiring.edits.slice(before), setField('link', link.id, side, end)];
}

const setBoth = (design: Design, link: Link, make: (portId: string) => CellEdits): CellEdits => {
  const edits: Edit[] = [];
  for (const side of SIDES) {
    const port = portOf(design, link, side);
    if (!port) continue;
    const result = make(port.id);
    if (isFault(result)) return result;
    edits.push(...result);
  }
  return edits;
};

const endColumns = (side: Side): Column<Link>[] => {
  const S = side.toUpperCase();
  return [
    {
      id: `${side}_switch`,
      title: `${S}: switch`,
      also: [`${side} switch`, side === 'a' ? 'from' : 'to'],
      width: 118,
      text: (design, link) => ownerText(design, link, side),
      set: (wiring, link, text) => replug(wiring, link, side, text.trim(), ''),
    },
    {
      id: `${side}_port`,
      title: `${S}: port`,
      also: [`${side} port`],
      width: 72,
      mono: true,
      text: (design, link) => portText(design, link, side),
      set: (wiring, link, text) => replug(wiring, link, side, ownerText(wiring.design, link, side), text.trim()),
    },
  ];
};

const vlanColumns = (side: Side): Column<Link>[] => {
  const S = side.toUpperCase();
  const none = { fault: tableMessages['host-has-no-vlan']() };
  return [
    {
      id: `${side}_vlans`,
      title: `${S}: VLANs`,
      width: 150,
      mono: true,
      text: (design, link) => {
        const port = portOf(design, link, side);
        return port ? vlansAt(design, port.id).vlans : '';
      },
      set: ({ design }, link, text) => {
        const port = portOf(design, link, side);
        return port ? setVlans(design, port.id, text) : text.trim() === '' ? [] : none;
      },
    },
    {
      id: `${side}_native`,
      title: `${S}: untagged`,
      width: 84,
      numeric: true,
      mono: true,
      text: (design, link) => {
        const port = portOf(design, link, side);
        return port ? String(vlansAt(design, port.id).native ?? '') : '';
      },
      set: ({ design }, link, text) => {
        const port = portOf(design, link, side);
        return port ? nativeEdits(design, port.id, text) : text.trim() === '' ? [] : none;
      },
    },
  ];
};

const costColumn = (side: Side): Column<Link> => ({
  id: `${side}_cost`,
  title: `${side.toUpperCase()}: cost`,
  width: 76,
  numeric: true,
  mono: true,
  text: (design, link) => String(portOf(design, link, side)?.cost ?? ''),
  set: ({ design }, link, text) => {
    const port = portOf(design, link, side);
    if (port) return setPortCost('port', port, 'all', numberCell(text) as number | null);
    return text.trim() === '' ? [] : { fault: tableMessages['host-has-no-cost']() };
  },
});

const columns: Column<Link>[] = [
  ...endColumns('a'),
  ...endColumns('b'),
  {
    id: 'speed',
    title: 'Mb/s',
    also: ['speed', 'speed_mbps'],
    width: 68,
    numeric: true,
    mono: true,
    text: (design, link) => String(linkSpeed(design, link)),
    sort: (design, link) => linkSpeed(design, link),
    set: ({ design }, link, text) => setBoth(design, link, (id) => [setField('port', id, 'speed', speedCell(text))]),
  },
  {
    id: 'agree',
    title: 'Ends',
    width: 220,
    text: (design, link) => {
      const found = disagreement(design, link);
      return found ? disagreementSentence(found, [ownerText(design, link, 'a'), ownerText(design, link, 'b')]) : '';
    },
  },
  ...vlanColumns('a'),
  ...vlanColumns('b'),
  costColumn('a'),
  costColumn('b'),
  {
    id: 'bundle',
    title: 'Bundle',
    width: 120,
    text: (design, link) =>
      SIDES.flatMap((side) => {
        const port = portOf(design, link, side);
        return (port && bundleAt(design, port.id)?.name) ?? [];
      }).join(' / '),
  },
  {
    id: 'down',
    title: 'Down',
    width: 58,
    choices: ['', 'yes'],
    text: (_, link) => (link.down ? 'yes' : ''),
    set: (_, link, text) => {
      const value = yesCell(text);
      return value !== null && typeof value === 'object' ? value : [setField('link', link.id, 'down', value)];
    },
  },
];

export const LINKS: Table<Link> = {
  id: 'links',
  title: 'Links',
  one: 'link',
  kind: 'link',
  columns,
  naming: ['a_switch', 'a_port', 'b_switch', 'b_port'],
  fields: { vlans: 'a_vlans', native: 'a_native', a: 'a_port', b: 'b_port', name: 'a_port', number: 'a_port' },
  rows: (design) => design.links,
  find: linkById,
  match: (design, cells) => {
    const wanted = SIDES.map((s) => `${cells.get(`${s}_switch`)}\n${cells.get(`${s}_port`)}`);
    if (SIDES.some((s) => !cells.get(`${s}_port`))) return undefined;
    return linksByEnds(design).get(wanted.sort().join('\n'));
  },
  together(wiring, link, cells) {
    return SIDES.flatMap((side) => {
      const columns = [`${side}_switch`, `${side}_port`];
      const [name, port] = columns.map((c) => cells.get(c)?.trim());
      if (name === undefined || port === undefined) return [];
      const same = name === ownerText(wiring.design, link, side) && port === portText(wiring.design, link, side);
      return [{ columns, edits: same ? [] : replug(wiring, link, side, name, port) }];
    });
  },
  create: (wiring, cells) => {
    const segment = cells.get('segment')?.trim();
    return segment ? attachRow(wiring, cells, segment) : createLink(wiring, cells);
  },
};

const byEnds = new WeakMap<readonly Link[], Map<string, Link>>();
function linksByEnds(design: Design): Map<string, Link> {
  let map = byEnds.get(design.links);
  if (!map) {
    const key = (l: Link) =>
      SIDES.map((s) => `${ownerText(design, l, s)}\n${portText(design, l, s)}`)
        .sort()
        .join('\n');
    byEnds.set(design.links, (map = new Map(design.links.map((l) => [key(l), l]))));
  }
  return map;
}
