/** What of a drawing is inferred, and not reported by anybody. */
import { portById } from '../design';
import type { Design, ObservedNetwork } from '../design';
import { switchCalled } from './draw/names';

/** Links of a design that a reading knows by LACP or BPDUs alone, by their ids. */
export function inferredLinks(design: Design, { links, switches }: ObservedNetwork): ReadonlySet<string> {
  const macs = new Map(switches.map((s) => [s.name, s.mac]));
  const ends = new Set(
    links
      .filter((l) => l.certainty !== 'lldp')
      .flatMap(({ a, b }) => [a, b])
      .map(
        ({ switch: name, port }) => `${switchCalled(design, name, macs.get(name) ?? null)?.id}\n${port.toLowerCase()}`,
      ),
  );
  const isEnd = (id: string) => {
    const port = portById(design, id);
    return port !== undefined && ends.has(`${port.switch}\n${port.name.toLowerCase()}`);
  };
  return new Set(
    design.links.flatMap((l) => ('port' in l.a && 'port' in l.b && isEnd(l.a.port) && isEnd(l.b.port) ? [l.id] : [])),
  );
}
