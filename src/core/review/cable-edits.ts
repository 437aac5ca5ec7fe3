/** Edits that add cables to a design: into free ports, or into new ones where there are none. */
import { addElement, nextPort, portsOf, setField, vlansAt } from '../design';
import type { Design, Edit, Port } from '../design';
import { formatVlanRanges, vlanMembership } from '../standard';
import type { MissingCable } from './missing-cables';

/** Rate of a port that has to be added where the switch has none to go by, in Mb/s. */
const USUAL_SPEED = 1000;

/** VLANs of the design that a switch carries on some port. */
function carriedAt(design: Design, at: string): ReadonlySet<number> {
  const sets = portsOf(design, at).map((p) => vlanMembership(vlansAt(design, p.id).vlans));
  return new Set(design.vlans.flatMap((v) => (sets.some((set) => set[v.number]) ? [v.number] : [])));
}

/** A port like the fastest of a switch that has a name of its own. */
function newPort(design: Design, at: string, taken: readonly Port[], id: string): Port {
  const own = [...portsOf(design, at), ...taken.filter((p) => p.switch === at)];
  return { id, switch: at, ...nextPort(design, at, own), speed: Math.max(USUAL_SPEED, ...own.map((p) => p.speed)) };
}

/** Cables with what both ends carry. */
export function missingCableEdits(
  design: Design,
  cables: readonly Pick<MissingCable, 'a' | 'b'>[],
  newId: (prefix: string) => string,
): Edit[] {
  const added: Port[] = [];
  return cables.flatMap(({ a, b }): Edit[] => {
    const [here, there] = [carriedAt(design, a.switch), carriedAt(design, b.switch)];
    const vlans = formatVlanRanges([...here].filter((v) => there.has(v)));
    const edits: Edit[] = [];
    const plugged = [a, b].map(({ switch: at, port }) => {
      if (port !== null) {
        edits.push(setField('port', port, 'vlans', vlans || null), setField('port', port, 'native', null));
        return { port };
      }
      const fresh = { ...newPort(design, at, added, newId('port')), ...(vlans ? { vlans } : {}) };
      added.push(fresh);
      edits.push(addElement('port', fresh));
      return { port: fresh.id };
    });
    const [from, to] = plugged as [{ port: string }, { port: string }];
    return [...edits, addElement('link', { id: newId('link'), a: from, b: to })];
  });
}
