/** The tables that `importCsv` reads, from a design. Hosts and bundle settings have no columns there and stay out. */
import Papa from 'papaparse';
import { portById, switchById } from '../design';
import type { Design, Port } from '../design';
import { BRIDGE_PRIORITY } from '../standard';
import { LINK_COLUMNS, SWITCH_COLUMNS, VLAN_COLUMNS } from './csv-columns';
import { guarded } from './table';
import type { ColumnRule } from './table';

/** Names that begin as a formula does are guarded: the file is opened in spreadsheets. */
const safe = (row: Record<string, string | number>) =>
  Object.fromEntries(Object.entries(row).map(([k, v]) => [k, typeof v === 'string' ? guarded(v) : v]));

const table = (columns: ColumnRule, rows: Record<string, string | number>[]) =>
  Papa.unparse({ fields: [...columns.required, ...columns.optional], data: rows.map(safe) }, { newline: '\r\n' }) +
  '\r\n';

function endCells(design: Design, side: 'a' | 'b', port: Port): Record<string, string | number> {
  return {
    [`${side}_switch`]: switchById(design, port.switch)?.name ?? '',
    [`${side}_port`]: port.name,
    [`${side}_port_number`]: port.number,
    [`${side}_cost`]: port.cost ?? '',
    [`${side}_port_priority`]: port.priority ?? '',
  };
}

/** Switches, links and VLANs as CSV text. A link whose ends carry different VLANs is written with those of end a. */
export function exportCsv(design: Design): { switches: string; links: string; vlans: string } {
  const switches = design.switches.map((s) => ({
    switch: s.name,
    mac: s.mac,
    priority: s.priority ?? BRIDGE_PRIORITY.default,
    tier: s.tier ?? '',
    protocol: s.protocol ?? design.mode,
    cost_scale: s.costScale ?? design.costScale,
  }));
  const shared = (port: Port) => ({ speed_mbps: port.speed, vlans: port.vlans ?? '', native_vlan: port.native ?? '' });
  const links = design.links.flatMap((link) => {
    if (!('port' in link.a) || !('port' in link.b)) return [];
    const [a, b] = [portById(design, link.a.port)!, portById(design, link.b.port)!];
    const speed = Math.min(a.speed, b.speed);
    return [{ ...endCells(design, 'a', a), ...endCells(design, 'b', b), ...shared(a), speed_mbps: speed }];
  });
  const attached = design.segments.flatMap((segment) =>
    segment.ports.map((id) => {
      const port = portById(design, id)!;
      return { ...endCells(design, 'a', port), ...shared(port), segment: segment.name };
    }),
  );
  return {
    switches: table(SWITCH_COLUMNS, switches),
    links: table(LINK_COLUMNS, [...links, ...attached]),
    vlans: table(
      VLAN_COLUMNS,
      design.vlans.map((v) => ({ vlan: v.number, name: v.name ?? '' })),
    ),
  };
}
