/** New links from cells: which ends they name, which ports come into being, and what the cells set on them. */
import { addElement, endOwner, hostById, linkAt, portById, segmentAt, setField } from '../../design';
import { clipped, tableMessages as say } from '../../messages';
import type { Design, Edit, Link, LinkEnd } from '../../design';
import { portSettings } from '..';
import type { Wiring } from '..';
import { isFault, numberCell, speedCell } from './column';
import type { CellEdits, Created } from './column';
import { newPortVlan } from './ports';

export type Side = 'a' | 'b';
export const SIDES = ['a', 'b'] as const;

export const portOf = (design: Design, link: Link, side: Side) => {
  const end = link[side];
  return 'port' in end ? portById(design, end.port) : undefined;
};
export const ownerText = (design: Design, link: Link, side: Side) => endOwner(design, link[side])?.name ?? '';
export const portText = (design: Design, link: Link, side: Side) => {
  const end = link[side];
  return 'port' in end ? (portById(design, end.port)?.name ?? '') : (end.card ?? '');
};

/** An end for a cable at a named switch and port, or host and card; ports that are not there come into being. */
export function endAt(
  wiring: Wiring,
  name: string,
  port: string,
  speed: number,
  old?: string,
): LinkEnd | { fault: string } {
  const { design } = wiring;
  const at = design.switches.find((s) => s.name === name);
  if (!at) {
    const host = design.hosts.find((h) => h.name === name);
    if (host) return { host: host.id, ...(port ? { card: port } : {}) };
    return { fault: say['no-switch-or-host']({ text: clipped(name) }) };
  }
  const known = port === '' ? undefined : wiring.named(at.id, port);
  if (known === undefined) {
    const like = old === undefined ? undefined : portById(design, old);
    const settings = like ? portSettings(like) : {};
    return { port: wiring.newPort(at.id, { speed: like?.speed ?? speed, ...(port ? { name: port } : {}), settings }) };
  }
  if (!portById(design, known)) return { fault: say['port-used']({ port: clipped(port), name: clipped(name) }) };
  if (wiring.isCabled(known) && known !== old) {
    const other = linkAt(design, known);
    const by = other
      ? SIDES.map((s) => `${ownerText(design, other, s)} ${portText(design, other, s)}`).join(' – ')
      : (segmentAt(design, known)?.name ?? 'another row');
    return {
      fault: say['port-cabled']({ port: clipped(port), name: clipped(name), by }),
    };
  }
  return { port: known };
}

/** Cells that say something of both ends, or of one. */
function settingsOf(cells: ReadonlyMap<string, string>, side: Side, portId: string): CellEdits {
  const edits: Edit[] = [];
  for (const field of ['vlans', 'native'] as const) {
    const text = cells.get(`${side}_${field}`) ?? cells.get(field) ?? '';
    if (!text.trim()) continue;
    const result = newPortVlan(portId, field, text);
    if (isFault(result)) return result;
    edits.push(...result);
  }
  const optional = { cost: 'cost', port_priority: 'priority', port_number: 'number' } as const;
  for (const [suffix, field] of Object.entries(optional)) {
    const value = numberCell(cells.get(`${side}_${suffix}`) ?? '');
    if (value !== null) edits.push(setField('port', portId, field as 'cost', value));
  }
  return edits;
}

export function createLink(wiring: Wiring, cells: ReadonlyMap<string, string>): Created {
  const before = wiring.edits.length;
  const cell = (id: string) => cells.get(id)?.trim() ?? '';
  const typed = speedCell(cell('speed') || '1000');
  const edits: Edit[] = [];
  const ends: LinkEnd[] = [];
  for (const side of SIDES) {
    const name = cell(`${side}_switch`);
    if (name === '') return { column: `${side}_switch`, fault: say['link-cell-empty']() };
    const end = endAt(wiring, name, cell(`${side}_port`), typed as number);
    if ('fault' in end)
      return { column: /port/i.test(end.fault) ? `${side}_port` : `${side}_switch`, fault: end.fault };
    if ('port' in end) {
      const settings = settingsOf(cells, side, end.port);
      if (isFault(settings)) return { column: `${side}_vlans`, fault: settings.fault };
      edits.push(...settings);
      if (cell('speed') && portById(wiring.design, end.port)) edits.push(setField('port', end.port, 'speed', typed));
    }
    ends.push(end);
  }
  const [a, b] = ends as [LinkEnd, LinkEnd];
  if ('port' in a && 'port' in b && a.port === b.port)
    return {
      column: 'b_port',
      fault: say['same-end']({ port: clipped(cell('a_port')), name: clipped(cell('a_switch')) }),
    };
  for (const [end, far] of [
    [a, b],
    [b, a],
  ] as const)
    if (
      'host' in end &&
      'port' in far &&
      hostById(wiring.design, end.host)?.vlan !== undefined &&
      !cells.get('vlans')
    ) {
      const { vlan } = hostById(wiring.design, end.host)!;
      edits.push(
        setField('port', far.port, 'vlans', `${vlan}`),
        setField('port', far.port, 'native', vlan),
        setField('port', far.port, 'edge', true),
      );
    }
  const id = wiring.link(a, b);
  const link = wiring.edits.at(-1)!;
  return { edits: [...wiring.edits.slice(before, -1), ...edits, link], id };
}

/** A row that attaches one port to a shared segment, which comes into being with its first row. */
export function attachRow(wiring: Wiring, cells: ReadonlyMap<string, string>, name: string): Created {
  const cell = (id: string) => cells.get(id)?.trim() ?? '';
  if (cell('b_switch') || cell('b_port')) return { column: 'segment', fault: say['segment-with-b-side']() };
  const before = wiring.edits.length;
  const end = endAt(wiring, cell('a_switch'), cell('a_port'), speedCell(cell('speed') || '1000') as number);
  if ('fault' in end) return { column: 'a_port', fault: end.fault };
  if ('host' in end) return { column: 'a_switch', fault: say['segment-with-host']() };
  const settings = settingsOf(cells, 'a', end.port);
  if (isFault(settings)) return { column: 'a_vlans', fault: settings.fault };
  const planned = wiring.edits.flatMap((e) => (e.type === 'add' && e.kind === 'segment' ? [e.value] : []));
  const known = [...wiring.design.segments, ...(planned as { id: string; name: string }[])].find(
    (s) => s.name === name,
  );
  const id = known?.id ?? wiring.newId('g');
  if (!known) wiring.edits.push(addElement('segment', { id, name, ports: [] }));
  wiring.attach(id, end.port);
  return { edits: [...wiring.edits.slice(before), ...settings], id };
}
