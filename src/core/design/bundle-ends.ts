/** Edits at one end of a bundle: the end that faces it is made, a member is put to another port. */
import { bundlingMessages as say } from '../messages';
import { endOf, freeShared } from './bundling';
import type { BundleEdits } from './bundling';
import { setField } from './edits';
import {
  bundleAt,
  bundlesOf,
  farEnd,
  groupBy,
  linkAt,
  pairOf,
  portById,
  portLabel,
  portsOf,
  segmentAt,
  switchById,
} from './look-ups';
import type { Bundle } from './bundle-schema';
import type { Design, Port } from './schema';

const refuse = (sentence: string): BundleEdits => ({ ok: false, sentence });

/** Ports of other switches that the members of a bundle are cabled to and that are in no bundle. */
function portsFacing(design: Design, { members }: Bundle): Port[] {
  return members.flatMap((m) => {
    const link = linkAt(design, m);
    const end = link && farEnd(link, m);
    return end && 'port' in end && !bundleAt(design, end.port) ? (portById(design, end.port) ?? []) : [];
  });
}

/**
 * Bundles the ports that face a bundle whose other end is not configured, with the settings of that bundle: on one switch, or
 * on both of a pair; the reason when they are on others or in a bundle.
 */
export function faceBundle(design: Design, bundle: Bundle, newId: (prefix: string) => string): BundleEdits {
  const sides = [...groupBy(portsFacing(design, bundle), (p) => p.switch).values()];
  if (sides.length === 0) return refuse(say['nothing-faces']());
  const pair = sides.length === 2 ? pairOf(design, sides[0]![0]!.switch) : undefined;
  if (sides.length > 2 || (sides.length === 2 && !pair?.switches.includes(sides[1]![0]!.switch))) {
    const names = sides.map(([p]) => switchById(design, p!.switch)?.name).join(', ');
    return refuse(say['several-ends']({ names }));
  }
  const shared = pair ? freeShared(design, pair) : undefined;
  const to = switchById(design, bundle.switch)!.name;
  const { kind, timeout, minActive, maxActive } = bundle;
  const alike = {
    kind,
    ...(timeout === undefined ? {} : { timeout }),
    ...(minActive === undefined ? {} : { minActive }),
    ...(maxActive === undefined ? {} : { maxActive }),
  };
  return { ok: true, edits: sides.map((side) => endOf(design, side, { id: newId('bundle'), to, shared, alike })) };
}

/** Ports of a switch that a cable can be put to: without cable, on no segment and in no bundle, in order. */
export const freePorts = (design: Design, switchId: string): Port[] =>
  portsOf(design, switchId).filter((p) => !linkAt(design, p.id) && !segmentAt(design, p.id) && !bundleAt(design, p.id));

/** Name and number for one port more of a switch: the first number that neither a port nor a bundle of it has, nor any of `taken`. */
export function nextPort(
  design: Design,
  at: string,
  taken: readonly { readonly number: number; readonly name: string }[] = [],
): { name: string; number: number } {
  const own = [...portsOf(design, at), ...bundlesOf(design, at), ...taken];
  const known = new Set(own.flatMap((p) => [p.name, String(p.number)]));
  let number = 1;
  while (known.has(String(number))) number++;
  return { name: String(number), number };
}

/**
 * Puts the cable of a member to another port of its switch; the port takes the member's place in the bundle, and its VLANs
 * and priority with it. The reason when that port has a cable or is in a bundle.
 */
export function replugMember(design: Design, from: string, to: string): BundleEdits {
  const [own, other] = [portById(design, from)!, portById(design, to)];
  const [link, bundle] = [linkAt(design, from), bundleAt(design, from)];
  if (!link || !bundle || !other || !freePorts(design, own.switch).includes(other))
    return refuse(say['port-not-free']({ port: other ? portLabel(design, to) : to }));
  const side = 'port' in link.a && link.a.port === from ? 'a' : 'b';
  const members = bundle.members.map((m) => (m === from ? to : m));
  return {
    ok: true,
    edits: [
      setField('bundle', bundle.id, 'members', members),
      setField('link', link.id, side, { port: to }),
      ...(['vlans', 'native', 'lacpPriority'] as const).flatMap((field) =>
        own[field] === other[field] ? [] : [setField('port', to, field, own[field] ?? null)],
      ),
    ],
  };
}
