/** A design as its switches answer for it: a pair that acts as one is one device, and its ports have names of their own. */
import { bundlesOf, portsOf } from '../design';
import type { Bundle, Design, Port } from '../design';
import { actingDesign } from '../network';
import { PAIR_PORT_OFFSET } from '../standard';

const named = new WeakMap<Design, Design>();

/** Ports and bundles of second switches whose names the first has too, as `2/NAME`. */
function apart(design: Design): ReadonlySet<string> {
  const found = new Set<string>();
  for (const s of design.switches)
    for (const own of [portsOf(design, s.id), bundlesOf(design, s.id)]) {
      const second = (e: Port | Bundle) => e.number > PAIR_PORT_OFFSET;
      const first = new Set(own.flatMap((e) => (second(e) ? [] : [e.name.toLowerCase()])));
      for (const e of own) if (second(e) && first.has(e.name.toLowerCase())) found.add(e.id);
    }
  return found;
}

/** The same design where it has no such pair. */
export function answeringDesign(drawn: Design): Design {
  const design = actingDesign(drawn);
  let result = named.get(design);
  if (!result) {
    const second = apart(design);
    const renamed = <T extends Port | Bundle>(e: T): T => (second.has(e.id) ? { ...e, name: `2/${e.name}` } : e);
    result =
      second.size === 0
        ? design
        : { ...design, ports: design.ports.map(renamed), bundles: design.bundles.map(renamed) };
    named.set(design, result);
  }
  return result;
}
