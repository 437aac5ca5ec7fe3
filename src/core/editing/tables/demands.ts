/** The table of traffic: Mb/s offered in a VLAN from one place to another. */
import { hostById, setField, switchById } from '../../design';
import { clipped, tableMessages as say } from '../../messages';
import type { Demand, Design, PlaceRef } from '../../design';
import { numberCell, unlessFault } from './column';
import type { Column, Refusal, Table } from './column';

const placeText = (design: Design, place: PlaceRef): string =>
  'host' in place
    ? (hostById(design, place.host)?.name ?? `${place.host} (removed)`)
    : (switchById(design, place.switch)?.name ?? `${place.switch} (removed)`);

/** A host or a switch by its name; hosts first, since traffic starts and ends there. */
function placeCell(design: Design, text: string): PlaceRef | { fault: string } {
  const name = text.trim();
  const host = design.hosts.find((h) => h.name === name);
  if (host) return { host: host.id };
  const s = design.switches.find((one) => one.name === name);
  return s ? { switch: s.id } : { fault: say['no-switch-or-host']({ text: clipped(name) }) };
}

const place = (id: 'from' | 'to', title: string): Column<Demand> => ({
  id,
  title,
  width: 150,
  text: (design, d) => placeText(design, d[id]),
  set: ({ design }, d, text) => unlessFault(placeCell(design, text), (v) => [setField('demand', d.id, id, v)]),
});

const columns: Column<Demand>[] = [
  {
    id: 'vlan',
    title: 'VLAN',
    width: 70,
    numeric: true,
    mono: true,
    text: (_, d) => String(d.vlan),
    sort: (_, d) => d.vlan,
    set: (_, d, text) => [setField('demand', d.id, 'vlan', numberCell(text) ?? '')],
  },
  place('from', 'From'),
  place('to', 'To'),
  {
    id: 'load',
    title: 'Mb/s',
    also: ['load', 'mbps'],
    width: 90,
    numeric: true,
    mono: true,
    text: (_, d) => String(d.load),
    sort: (_, d) => d.load,
    set: (_, d, text) => [setField('demand', d.id, 'load', numberCell(text) ?? 0)],
  },
];

const refuse = (column: string, fault: string): Refusal => ({ column, fault });

export const DEMANDS: Table<Demand> = {
  id: 'demands',
  title: 'Traffic',
  one: 'demand',
  kind: 'demand',
  columns,
  naming: ['vlan', 'from', 'to'],
  fields: {},
  rows: (design) => design.demands,
  find: (design, id) => design.demands.find((d) => d.id === id),
  create: ({ design }, cells) => {
    const ends: PlaceRef[] = [];
    for (const id of ['from', 'to'] as const) {
      const text = cells.get(id)?.trim();
      if (!text) return refuse(id, say['traffic-ends']());
      const found = placeCell(design, text);
      if ('fault' in found) return refuse(id, found.fault);
      ends.push(found);
    }
    const [from, to] = ends as [PlaceRef, PlaceRef];
    const given = cells.get('vlan')?.trim();
    const host = 'host' in from ? hostById(design, from.host) : undefined;
    const vlan = given ? Number(given) : (host?.vlan ?? design.vlans[0]?.number);
    if (vlan === undefined) return refuse('vlan', say['traffic-vlan']());
    const load = numberCell(cells.get('load') ?? '') ?? 0;
    const taken = new Set(design.demands.map((d) => d.id));
    let n = design.demands.length + 1;
    while (taken.has(`d${n}`)) n++;
    const value = { id: `d${n}`, vlan, from, to, load };
    return { id: value.id, edits: [{ type: 'add', kind: 'demand', value: value }] };
  },
};
