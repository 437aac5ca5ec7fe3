import type { Table, TableId } from './column';
import { DEMANDS } from './demands';
import { LINKS } from './links';
import { NOTES } from './notes';
import { HOSTS, SEGMENTS, VLANS } from './others';
import { PORTS } from './ports';
import { SWITCHES } from './switches';

/** The tables beside the drawing, in the order in which they are offered. */
export const TABLES = [SWITCHES, PORTS, LINKS, VLANS, HOSTS, SEGMENTS, DEMANDS, NOTES] as unknown as readonly Table[];
export const tableById = (id: TableId): Table => TABLES.find((t) => t.id === id)!;
