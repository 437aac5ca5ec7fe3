/** In what settings a switch differs from others of its kind, and the edits that make it like them. */
import { groupBy, portsOf } from '../../design';
import type { Design, Edit, Port, Switch } from '../../design';
import type { Wiring } from '..';
import { isFault } from './column';
import type { Column } from './column';
import { PORTS } from './ports';
import { SWITCHES } from './switches';

interface Unlike {
  /** Port by its name; null for a setting of the switch. */
  readonly port: string | null;
  /** Title of the setting, and its values as the tables show them. */
  readonly setting: string;
  readonly own: string;
  readonly usual: string;
  readonly edits: readonly Edit[];
}

/** Columns that say which one it is, not how it is set. */
const NAMING = new Set(['name', 'mac', 'group', 'tier', 'number', 'switch', 'to', 'description', 'ports']);

/** The value that more than half have; null where none is that usual. */
export function usualOf(values: readonly string[]): string | null {
  const most = [...groupBy(values, (v) => v)].sort((a, b) => b[1].length - a[1].length)[0];
  return most && most[1].length * 2 > values.length ? most[0] : null;
}

function compare<E>(wiring: Wiring, columns: readonly Column<E>[], own: E, others: readonly E[], port: string | null) {
  const { design } = wiring;
  return columns.flatMap((column): Unlike[] => {
    if (NAMING.has(column.id)) return [];
    const text = column.text(design, own);
    const usual = usualOf(others.map((e) => column.text(design, e)));
    if (usual === null || usual === text) return [];
    const edits = column.set?.(wiring, own, usual) ?? [];
    return [{ port, setting: column.title, own: text, usual, edits: isFault(edits) ? [] : edits }];
  });
}

/**
 * The settings in which a switch differs from most of `others`; its ports are compared with those of the same number, if
 * most of the others have them. Addresses, names, places and cables are no settings. `edits` are empty where one cannot be made like
 * the others by itself.
 */
export function unlikeSettings(wiring: Wiring, own: Switch, others: readonly Switch[]): Unlike[] {
  if (others.length === 0) return [];
  const { design }: { design: Design } = wiring;
  const theirs = others.map((s) => new Map(portsOf(design, s.id).map((p) => [p.number, p])));
  const ofPort = (port: Port) => {
    const alike = theirs.flatMap((all) => all.get(port.number) ?? []);
    return alike.length * 2 > others.length ? compare(wiring, PORTS.columns, port, alike, port.name) : [];
  };
  return [...compare(wiring, SWITCHES.columns, own, others, null), ...portsOf(design, own.id).flatMap(ofPort)];
}
