/** Every way in which a network goes out as a file, in one table. */
import { clipped, fileMessages as say } from '../messages';
import type { Design } from '../design';
import { exportCsv } from './csv-export';
import { exportGraphml } from './graphml-export';
import { exportSettings } from './device-settings';
import { exportIeeeYang, ieeeYangOf } from './ieee-yang';
import { exportLinuxLab } from './linux-lab';
import { exportNetworkd } from './networkd';
import { exportOpenConfig, openConfigOf } from './openconfig';
import { exportTopology } from './topology';
import { yangDifference } from './yang-difference';

export interface ExportFormat {
  readonly id: string;
  /** What follows the name of the file. */
  readonly ending: string;
  readonly type: string;
  readonly write: (design: Design) => string;
}

const CSV = 'text/csv; charset=utf-8';

/** The design document; its tables; the network as a graph. */
export const EXPORT_FORMATS: readonly ExportFormat[] = [
  { id: 'json', ending: '.json', type: 'application/json', write: (d) => `${JSON.stringify(d, null, 2)}\n` },
  { id: 'graphml', ending: '.graphml', type: 'application/graphml+xml; charset=utf-8', write: exportGraphml },
  { id: 'topology', ending: '-topology.json', type: 'application/json', write: exportTopology },
  { id: 'linux-lab', ending: '-lab.sh', type: 'text/x-shellscript; charset=utf-8', write: exportLinuxLab },
  { id: 'openconfig', ending: '-openconfig.json', type: 'application/json', write: exportOpenConfig },
  { id: 'ieee-yang', ending: '-ieee-yang.json', type: 'application/json', write: exportIeeeYang },
  { id: 'settings', ending: '-settings.txt', type: 'text/plain; charset=utf-8', write: exportSettings },
  { id: 'networkd', ending: '-networkd.txt', type: 'text/plain; charset=utf-8', write: exportNetworkd },
  { id: 'switches', ending: '-switches.csv', type: CSV, write: (d) => exportCsv(d).switches },
  { id: 'links', ending: '-links.csv', type: CSV, write: (d) => exportCsv(d).links },
  { id: 'vlans', ending: '-vlans.csv', type: CSV, write: (d) => exportCsv(d).vlans },
];

/** Formats of which what differs from another design can be written alone, as JSON by device. */
const BY_DEVICE: Readonly<Record<string, (design: Design) => Record<string, unknown>>> = {
  openconfig: openConfigOf,
  'ieee-yang': ieeeYangOf,
};

/** What to set and to take away to come from one design to another; null where the format has no such form. */
export function exportDifference(id: string, from: Design, to: Design): string | null {
  const write = BY_DEVICE[id];
  return write ? `${JSON.stringify(yangDifference(write(from), write(to)), null, 2)}\n` : null;
}

/** The format of that name, or the sentence that says which there are. */
export function exportFormat(id: string): ExportFormat | string {
  return (
    EXPORT_FORMATS.find((f) => f.id === id) ??
    say['unknown-format']({ format: clipped(id), legal: EXPORT_FORMATS.map((f) => f.id) })
  );
}
