/** One more closet like this one, and things moved about. */
import { addElement, bundleAt, linkAt, portById, portsOf, setField, switchById } from '../design';
import type { Design, Edit } from '../design';
import { Names } from './names';
import { partOf } from './part';
import type { Chosen } from './part';
import { pastePart } from './paste-part';
import type { Pasted } from './paste-part';
import { Wiring, portSettings } from './wiring';
import type { NewId } from './wiring';

/** Hosts whose every cable ends on one of these switches. */
function hostsOn(design: Design, switches: ReadonlySet<string>): Chosen[] {
  const seats = new Map<string, boolean>();
  for (const { a, b } of design.links)
    for (const [host, far] of [
      [a, b],
      [b, a],
    ] as const)
      if ('host' in host && 'port' in far) {
        const on = switches.has(portById(design, far.port)!.switch);
        seats.set(host.host, (seats.get(host.host) ?? true) && on);
      }
  return [...seats].filter(([, all]) => all).map(([id]) => ({ kind: 'host' as const, id }));
}

/** Room to the right that a copy needs: the width of what is copied and a gap. */
function stepAside(design: Design, switches: ReadonlySet<string>): number {
  const xs = design.switches.filter((s) => switches.has(s.id)).map((s) => s.x ?? 0);
  const right = xs.reduce((a, b) => Math.max(a, b), -Infinity);
  const width = right - xs.reduce((a, b) => Math.min(a, b), Infinity) + 190;
  const ys = new Set(design.switches.filter((s) => switches.has(s.id)).map((s) => s.y ?? 0));
  // A free place in the row: as many steps as it takes to come past the last switch that stands there.
  const last = Math.max(...design.switches.filter((s) => ys.has(s.y ?? 0)).map((s) => s.x ?? 0));
  return Math.max(width, last - right + width);
}

/**
 * One more closet like the chosen switches: copies them with their hosts and settings, and cables the copy to the same
 * switches as the original, on ports of its own with the same settings; bundles towards them included.
 */
export function oneMore(design: Design, switchIds: readonly string[], newId: NewId): Pasted {
  const own = new Set(switchIds);
  const chosen: Chosen[] = [...switchIds.map((id) => ({ kind: 'switch' as const, id })), ...hostsOn(design, own)];
  const pasted = pastePart(design, partOf(design, chosen), newId, { dx: stepAside(design, own), dy: 0 });
  const wiring = new Wiring(design, newId);
  /** New upstream ports of each upstream bundle. */
  const members = new Map<string, string[]>();
  for (const id of switchIds)
    for (const port of portsOf(design, id)) {
      const link = linkAt(design, port.id);
      const farEnd = link && ('port' in link.a && link.a.port === port.id ? link.b : link.a);
      const far = farEnd && 'port' in farEnd ? portById(design, farEnd.port) : undefined;
      if (!link || !far || own.has(far.switch)) continue;
      const twin = wiring.newPort(far.switch, { speed: far.speed, settings: portSettings(far) });
      wiring.link({ port: twin }, { port: pasted.ports.get(port.id)! });
      const bundle = bundleAt(design, far.id);
      if (bundle) members.set(bundle.id, [...(members.get(bundle.id) ?? []), twin]);
    }
  for (const [id, ports] of members) {
    const bundle = design.bundles.find((b) => b.id === id)!;
    const names = new Names(design.bundles.filter((b) => b.switch === bundle.switch).map((b) => b.name));
    wiring.edits.push(
      addElement('bundle', {
        ...bundle,
        id: newId('b'),
        name: names.claim(bundle.name),
        number: wiring.freeNumber(bundle.switch, bundle.number + 1),
        members: ports,
      }),
    );
  }
  return { ...pasted, edits: [...pasted.edits, ...wiring.edits] };
}

/** Edits that move things by a distance; what has no place of its own yet gets one from `at`. */
export function moveThings(
  design: Design,
  things: readonly Chosen[],
  at: (thing: Chosen) => { x: number; y: number } | null,
): Edit[] {
  return things.flatMap((thing) => {
    const to = at(thing);
    if (!to) return [];
    const now = thing.kind === 'switch' ? switchById(design, thing.id) : undefined;
    const rounded = { x: Math.round(to.x), y: Math.round(to.y) };
    if (now && now.x === rounded.x && now.y === rounded.y) return [];
    return (['x', 'y'] as const).map((axis) => setField(thing.kind, thing.id, axis, rounded[axis]));
  });
}
