/** A variant as a file to take home. */
import { exportCsv, exportGraphml, exportTopology } from '../core/formats';
import { Problem } from './problem';
import type { LoadedVariant } from './variants';

const TABLES = ['switches', 'links', 'vlans'] as const;

/** Letters, digits and dashes of a name, for file names. */
const fileName = (name: string) =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || 'design';

/** `json` is the design document, `graphml` and `topology` (RFC 8345) the network as a graph; `switches`, `links` and `vlans` are the CSV tables. */
export function exportFile(designName: string, variant: LoadedVariant, format: string): Response {
  const base = `${fileName(designName)}-${fileName(variant.name)}`;
  const file = (text: string, name: string, type: string) =>
    new Response(text, { headers: { 'Content-Type': type, 'Content-Disposition': `attachment; filename="${name}"` } });
  if (format === 'json')
    return file(
      `${JSON.stringify({ ...variant.design, name: designName }, null, 2)}\n`,
      `${base}.json`,
      'application/json',
    );
  const named = { ...variant.design, name: designName };
  if (format === 'graphml')
    return file(exportGraphml(named), `${base}.graphml`, 'application/graphml+xml; charset=utf-8');
  if (format === 'topology') return file(exportTopology(named), `${base}-topology.json`, 'application/json');
  const table = TABLES.find((t) => t === format);
  if (!table)
    throw new Problem(
      422,
      'unknown-format',
      `Format '${format}' is not known: it is one of json, graphml, topology, ${TABLES.join(', ')}.`,
    );
  return file(exportCsv(variant.design)[table], `${base}-${table}.csv`, 'text/csv; charset=utf-8');
}
