/** Parts of a network, taken out to be put in again elsewhere: what copying takes along. */
import { z } from 'zod';
import {
  bundleSchema,
  hostSchema,
  linkSchema,
  pairSchema,
  portSchema,
  regionSchema,
  segmentSchema,
  switchSchema,
  vlanSchema,
} from '../design';
import type { Bundle, Design, Host, Link, LinkEnd, Port, Region, Segment, Switch, SwitchPair, Vlan } from '../design';

/** A part: what was chosen, with the cables among it. Read back from the clipboard, so it has a schema. */
export const partSchema = z.strictObject({
  format: z.literal('knot-path-part'),
  switches: z.array(switchSchema),
  ports: z.array(portSchema),
  links: z.array(linkSchema),
  segments: z.array(segmentSchema),
  bundles: z.array(bundleSchema),
  hosts: z.array(hostSchema),
  vlans: z.array(vlanSchema),
  // Parts that releases before copied have neither.
  pairs: z.array(pairSchema).default([]),
  regions: z.array(regionSchema).default([]),
});
export interface Part {
  readonly format: 'knot-path-part';
  readonly switches: readonly Switch[];
  readonly ports: readonly Port[];
  readonly links: readonly Link[];
  readonly segments: readonly Segment[];
  readonly bundles: readonly Bundle[];
  readonly hosts: readonly Host[];
  readonly vlans: readonly Vlan[];
  readonly pairs: readonly SwitchPair[];
  /** Regions that the switches name. */
  readonly regions: readonly Region[];
}

export interface Chosen {
  readonly kind: 'switch' | 'host' | 'segment';
  readonly id: string;
}

const ids = (chosen: readonly Chosen[], kind: Chosen['kind']) =>
  new Set(chosen.filter((c) => c.kind === kind).map((c) => c.id));

/** The chosen switches, hosts and segments with every cable between two of them. */
export function partOf(design: Design, chosen: readonly Chosen[]): Part {
  const [switches, hosts] = [ids(chosen, 'switch'), ids(chosen, 'host')];
  const ports = design.ports.filter((p) => switches.has(p.switch));
  const own = new Set(ports.map((p) => p.id));
  const inside = (end: LinkEnd) => ('port' in end ? own.has(end.port) : hosts.has(end.host));
  const chosenSegments = ids(chosen, 'segment');
  const pairs = design.pairs.filter((p) => p.switches.every((id) => switches.has(id)));
  const paired = new Set<string>(pairs.flatMap((p) => p.switches));
  const regions = new Set(design.switches.flatMap((s) => (switches.has(s.id) && s.region ? [s.region] : [])));
  return {
    format: 'knot-path-part',
    switches: design.switches.filter((s) => switches.has(s.id)),
    ports,
    links: design.links.filter((l) => inside(l.a) && inside(l.b)),
    segments: design.segments
      .filter((s) => chosenSegments.has(s.id))
      .map((s) => ({ ...s, ports: s.ports.filter((p) => own.has(p)) })),
    // Half a pair is none: its bundles end on one switch alone.
    bundles: design.bundles
      .filter((b) => switches.has(b.switch))
      .map((b) => (paired.has(b.switch) || b.shared === undefined ? b : withoutShared(b))),
    pairs,
    regions: design.regions.filter((r) => regions.has(r.id)),
    hosts: design.hosts.filter((h) => hosts.has(h.id)),
    vlans: design.vlans,
  };
}

function withoutShared(bundle: Bundle): Bundle {
  const rest = { ...bundle };
  delete rest.shared;
  return rest;
}

/** A part as clipboard text, and back; null when the text is something else. */
export const partText = (part: Part): string => JSON.stringify(part);
export function readPart(text: string): Part | null {
  if (!text.includes('knot-path-part')) return null;
  try {
    const read = partSchema.safeParse(JSON.parse(text));
    return read.success ? read.data : null;
  } catch {
    return null;
  }
}
