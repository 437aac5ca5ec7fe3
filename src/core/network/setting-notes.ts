/** Settings that have no effect where they are made, or that an engine leaves out: what is said beside them. */
import {
  bundleAt,
  bundleById,
  farEnd,
  filterOf,
  hasBpduGuard,
  isClassicMode,
  isPerVlan,
  linkAt,
  linkTypeOf,
  modeOf,
  portById,
  segmentAt,
  switchById,
} from '../design';
import type { Bundle, Design, Port } from '../design';
import { noteMessages as say } from '../messages';
import { formatVlanRanges } from '../standard';
import { vlansOfKeepalive } from './bundles/pair-report';
import { lonelyBundles } from './bundles/formed';
import { sharedWith } from './bundles/pairs';
import { verdictOf } from './bundles/verdict';
import { lacpIdentity } from './lacp-ends';

type Element = Port | Bundle;
type Note = string | false | null | undefined;

const isPort = (e: Element): e is Port => !('members' in e);
const modeAt = (design: Design, e: Element) => modeOf(design, switchById(design, e.switch)!);
const classicAt = (design: Design, e: Element): boolean => isClassicMode(modeAt(design, e));

/** The port or bundle at the other end of a cable; of a bundle that to which its first cabled member leads. */
function farElement(design: Design, e: Element): Element | undefined {
  for (const id of isPort(e) ? [e.id] : e.members) {
    const link = linkAt(design, id);
    const end = link && farEnd(link, id);
    if (end && 'port' in end) return (isPort(e) ? undefined : bundleAt(design, end.port)) ?? portById(design, end.port);
  }
  return undefined;
}

function silenceNote(design: Design, e: Element, far: Element | undefined): Note {
  if (!e.silenceGuard) return null;
  if (classicAt(design, e)) return say['silence-classic']();
  if (isPort(e) && linkTypeOf(design, e) === 'shared') return say['silence-shared']();
  return far && !far.silenceGuard && say['silence-alone']();
}

function keepaliveNote(e: Element, far: Element | undefined): Note {
  if (!isPort(e) || !e.oneWay) return null;
  if (!far || !isPort(far) || !far.oneWay) return say['keepalives-alone']();
  return (far.oneWayInterval ?? 1) !== (e.oneWayInterval ?? 1) && say['keepalives-unlike']();
}

function segmentNotes(design: Design, e: Element): Note[] {
  const segment = isPort(e) ? segmentAt(design, e.id) : undefined;
  if (!segment) return [];
  const others = segment.ports.filter((id) => id !== e.id).flatMap((id) => portById(design, id) ?? []);
  return [
    hasBpduGuard(design, e) && others.some((p) => hasBpduGuard(design, p)) && say['guards-shared'](),
    others.some((p) => p.native !== e.native) && say['untagged-shared'](),
  ];
}

/** An access port of VLAN 1 opposite a classic switch with a tree per VLAN whose untagged VLAN is another. */
const accessNote = (design: Design, e: Element, far: Element | undefined): Note =>
  e.vlans === '1' &&
  e.native === 1 &&
  far !== undefined &&
  isPerVlan(modeAt(design, e)) &&
  modeAt(design, far) === 'per-vlan-stp' &&
  far.native !== undefined &&
  far.native !== 1 &&
  say['access-classic']();

/** A cable that is the keepalive of a pair, and carries what its shared bundles carry. */
function keepaliveOfPairNote(design: Design, e: Element): Note {
  const link = isPort(e) ? linkAt(design, e.id) : undefined;
  const pair = link && design.pairs.find((p) => p.keepalive === link.id && !p.peer.includes(link.id));
  const vlans = pair ? vlansOfKeepalive(design, pair) : [];
  return vlans.length > 0 && say['keepalive-of-pair']({ vlans: formatVlanRanges(vlans).replaceAll(',', ', ') });
}

const kept = (notes: readonly Note[]): string[] => notes.filter((n): n is string => typeof n === 'string');

/** What is to be said beside the settings of a port or bundle; none where all of them do what they say. */
export function notesAt(design: Design, e: Element): string[] {
  const far = farElement(design, e);
  return kept([
    silenceNote(design, e, far),
    e.helloTime !== undefined && classicAt(design, e) && say['hello-classic'](),
    hasBpduGuard(design, e) && filterOf(design, e) === 'always' && say['filter-and-guard'](),
    keepaliveNote(e, far),
    isPort(e) && e.stormLimit !== undefined && e.stormAction === 'shut' && say['storm-shut'](),
    accessNote(design, e, far),
    keepaliveOfPairNote(design, e),
    ...segmentNotes(design, e),
  ]);
}

/** What is to be said beside the settings of a bundle as a bundle. */
export function bundleNotes(design: Design, id: string): string[] {
  const bundle = bundleById(design, id);
  if (!bundle) return [];
  if (bundle.kind === 'static') {
    const apart = verdictOf(design, id)?.outcome === 'one-sided' && !lonelyBundles(design).has(id);
    return kept([apart && say['one-end-apart']()]);
  }
  const identity = lacpIdentity(design, bundle);
  const shared = sharedWith(design, bundle);
  const other = design.bundles.find(
    (b) => b.id !== id && b !== shared && b.kind === bundle.kind && lacpIdentity(design, b) === identity,
  );
  const far = farElement(design, bundle);
  return kept([
    other && say['key-twice']({ other: `${other.name} of ${switchById(design, other.switch)!.name}` }),
    bundle.keepsWorking && far && !isPort(far) && !far.keepsWorking && say['kept-alone'](),
    bundle.keepsWorking && bundle.maxActive !== undefined && say['kept-history'](),
  ]);
}
