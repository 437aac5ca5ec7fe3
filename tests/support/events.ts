/** Random events for rehearsals of random networks. */
import { setField } from '@/core/design';
import type { Design, Edit, Script } from '@/core/design';
import { vlanMembership } from '@/core/standard';

/** Kinds of `eventFor`, from 0 on. */
export const LAST_KIND = 9;
type Event = Script['events'][number];
const some = <T>(list: readonly T[], which: number): T | undefined => list[which % Math.max(1, list.length)];

/** An event about something of the design that is there. */
export function eventFor(design: Design, kind: number, which: number, at: number, id: string): Event[] {
  const link = some(design.links, which)?.id;
  const s = some(design.switches, which)!.id;
  const port = some(design.ports, which)?.id;
  const set = (edits: Edit[]): Event[] => [{ id, at, kind: 'set', label: 'set', edits: edits as never }];
  switch (kind) {
    case 0:
      return link ? [{ id, at, kind: 'link-down', link }] : [];
    case 1:
      return link ? [{ id, at, kind: 'link-up', link }] : [];
    case 2:
      return [{ id, at, kind: 'switch-off', switch: s }];
    case 3:
      return [{ id, at, kind: 'switch-on', switch: s }];
    case 4:
      return port ? set([setField('port', port, 'cost', (which % 5) * 7 + 1)]) : [];
    case 5:
      return set([setField('switch', s, 'priority', (which % 16) * 4096)]);
    case 6:
      return port ? set([setField('port', port, 'vlans', ['all', '10', '10,20', '20-30'][which % 4])]) : [];
    case 7:
      return set([setField('switch', s, 'helloTime', 1 + (which % 2))]);
    case 8: {
      const at = some(
        design.links.flatMap((l) => ('port' in l.a ? [l.a.port] : [])),
        which,
      );
      const own = design.ports.find((p) => p.id === at);
      const native = [10, 20][which % 2]!;
      // An access port that leads to a switch without the tree joins what the solver keeps apart.
      const trunk = own && own.vlans !== String(native) && vlanMembership(own.vlans ?? 'all')[native];
      return trunk ? set([setField('port', own.id, 'native', native)]) : [];
    }
    default:
      return set([setField('switch', s, 'region', ['ra', 'rb', null][which % 3])]);
  }
}
