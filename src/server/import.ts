/** A design from files that the browser sends: a design document, or tables of switches, links and VLANs. */
import type { z } from 'zod';
import { readDesignText } from '../core/design';
import type { Design } from '../core/design';
import { importCsv } from '../core/formats';
import { Problem, refused, refusedTable } from './problem';
import type { importRequest } from '../api/contract';

/** The design, or a problem that names every refused place. */
export function readImport({ name, json, switches, links, vlans }: z.output<typeof importRequest>): Design {
  if (json) {
    const read = readDesignText(json.text);
    if (!read.ok) throw refused(read.faults);
    return read.design;
  }
  if (!switches || !links)
    throw new Problem(
      422,
      'incomplete-import',
      'An import needs a design file, or a table of switches together with a table of links.',
    );
  const result = importCsv(name, switches, links, vlans);
  if (!result.ok) throw refusedTable(result.faults);
  return result.design;
}
