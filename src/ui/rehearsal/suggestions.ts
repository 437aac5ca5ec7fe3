/** What a script can do to the things that are selected. */
import {
  bundleById,
  bundleLinks,
  farEnd,
  linkAt,
  linkById,
  portById,
  scopeAt,
  setField,
  switchById,
} from '../../core/design';
import type { Bundle, Design, Edit, Script, ScriptEvent } from '../../core/design';
import { BRIDGE_PRIORITIES } from '../../core/standard';
import type { Tree } from '../../core/network';
import type { Ref } from '../session/view';
import { costAction, priorityAction } from '../session/actions';
import type { Action } from '../session/actions';

/** Something that can be put into a script; its time is given when it is. */
type Offer = { readonly name: string; readonly event: Omit<ScriptEvent, 'id' | 'at'> };

/** Seconds from one event to the next, where no moment is chosen. */
const APART = 5;

/**
 * When an event that is added takes place, in seconds: at the moment in view (microseconds), and where that is the very
 * start, a while after the last event, or half way from there to the end where that is too short.
 */
export function timeOfNext({ events, until }: Pick<Script, 'events' | 'until'>, moment: number): number {
  if (moment > 0) return Math.round(moment / 1000) / 1000;
  const last = Math.max(0, ...events.map((e) => e.at));
  return last + APART < until ? last + APART : Math.max(last, (last + until) / 2);
}

function linkOffers(id: string): Offer[] {
  return [
    { name: 'Fail this link', event: { kind: 'link-down', link: id } as never },
    { name: 'Restore it', event: { kind: 'link-up', link: id } as never },
    { name: 'Fail at one end only', event: { kind: 'link-down', link: id, end: 'a' } as never },
    { name: 'Flap 5 times', event: { kind: 'flap', link: id, times: 5, every: 1 } as never },
    { name: 'Lose frames of one end', event: { kind: 'bpdu-loss', link: id, from: 'a' } as never },
    { name: 'Let all frames pass again', event: { kind: 'bpdu-heal', link: id } as never },
  ];
}

/** Settings changed while it runs; the value is chosen in its row. */
const setOffer = (name: string, { label, edits }: Action): Offer => ({
  name,
  event: { kind: 'set', label, edits } as never,
});

function switchOffers(design: Design, id: string, tree: Tree | null): Offer[] {
  const s = switchById(design, id);
  return [
    { name: 'Switch it off', event: { kind: 'switch-off', switch: id } as never },
    { name: 'Switch it on', event: { kind: 'switch-on', switch: id } as never },
    { name: 'Spanning tree off', event: { kind: 'tree-off', switch: id } as never },
    ...(s && tree
      ? [setOffer('Set its priority', priorityAction([s], scopeAt(design, s, tree), BRIDGE_PRIORITIES[0]!))]
      : []),
  ];
}

function portOffers(design: Design, id: string, tree: Tree | null): Offer[] {
  const port = portById(design, id)!;
  const s = switchById(design, port.switch)!;
  const cost: Offer[] = tree ? [setOffer('Set its cost', costAction(design, port, scopeAt(design, s, tree), 1))] : [];
  const link = linkAt(design, id);
  const far = link && farEnd(link, id);
  const plugged: Offer[] = [
    { name: 'Plug in a looped hub', event: { kind: 'hub-loop', port: id } as never },
    { name: 'Plug in a rogue switch', event: { kind: 'intruder', port: id, priority: 0 } as never },
    { name: 'Unplug it again', event: { kind: 'unplug', port: id } as never },
  ];
  const check: Offer = {
    name: 'Check the protocol of its neighbour again',
    event: { kind: 'migration-check', port: id } as never,
  };
  return [
    ...(link ? linkOffers(link.id) : []),
    ...cost,
    ...(far && 'port' in far ? [check] : []),
    ...(!far || 'host' in far ? plugged : []),
  ];
}

function bundleOffers(design: Design, id: string): Offer[] {
  const bundle = bundleById(design, id);
  const links = (bundle?.members ?? []).flatMap((m) => linkAt(design, m)?.id ?? []);
  return [
    ...(links[0] ? [{ name: 'Fail one member', event: { kind: 'link-down', link: links[0] } as never }] : []),
    ...(links[0] ? [{ name: 'Restore it', event: { kind: 'link-up', link: links[0] } as never }] : []),
    setOffer('Make it static at this end only', {
      label: `bundle ${bundle?.name} static at one end`,
      edits: [setField('bundle', id, 'kind', 'static')],
    }),
    setOffer('Remove it at this end only', {
      label: `bundle ${bundle?.name} of ${switchById(design, bundle?.switch ?? '')?.name} removed`,
      edits: [{ type: 'remove', kind: 'bundle', id }],
    }),
  ];
}

/** Cables that are plugged in, made one bundle while it runs: at both ends, or at one alone and without a negotiation. */
function cablesOffers(design: Design, links: readonly string[]): Offer[] {
  let made = 0;
  const bundled = bundleLinks(design, links, (prefix) => `${prefix}-${links[0]}-${made++}`);
  if (!bundled.ok) return [];
  const oneEnd = bundled.edits.flatMap((edit): Offer[] => {
    if (edit.type !== 'add') return [];
    const bundle = edit.value as unknown as Bundle;
    const at = switchById(design, bundle.switch)?.name ?? bundle.switch;
    const edits: Edit[] = [{ ...edit, value: { ...bundle, kind: 'static' } }];
    return [setOffer(`Bundle them at ${at} only, static`, { label: `static bundle at ${at} only`, edits })];
  });
  return [setOffer('Bundle them', { label: `${links.length} links bundled`, edits: bundled.edits }), ...oneEnd];
}

/** What a change that is tried out, and the tree in view, offer whatever is selected. */
function generalOffers(design: Design, tree: Tree | null, draft: Action | null): Offer[] {
  const vlan = tree?.vlan ?? design.vlans[0]?.number;
  return [
    ...(draft ? [setOffer(`Apply the previewed change: ${draft.label}`, draft)] : []),
    ...(vlan === undefined
      ? []
      : [{ name: `Power off the root of VLAN ${vlan}`, event: { kind: 'root-off', vlan } as never }]),
  ];
}

function offersFor(design: Design, selection: readonly Ref[], tree: Tree | null): Offer[] {
  const ports = selection.flatMap((r) => (r.kind === 'port' && portById(design, r.id) ? [r.id] : []));
  if (ports.length === 2 && ports.every((id) => !linkAt(design, id)))
    return [{ name: 'Plug a cable in between', event: { kind: 'cable', a: ports[0]!, b: ports[1]! } as never }];
  const links = selection.flatMap((r) => (r.kind === 'link' && linkById(design, r.id) ? [r.id] : []));
  if (links.length > 1) return cablesOffers(design, links);
  const [first] = selection;
  if (!first) return [];
  switch (first.kind) {
    case 'link':
      return linkById(design, first.id) ? linkOffers(first.id) : [];
    case 'switch':
      return switchOffers(design, first.id, tree);
    case 'port':
      return bundleById(design, first.id)
        ? bundleOffers(design, first.id)
        : portById(design, first.id)
          ? portOffers(design, first.id, tree)
          : [];
    case 'bundle':
      return bundleOffers(design, first.id);
    default:
      return [];
  }
}

/** `tree` is the one in view, and `draft` the change that is tried out. */
export const suggestions = (
  design: Design,
  selection: readonly Ref[],
  tree: Tree | null,
  draft: Action | null,
): Offer[] => [...offersFor(design, selection, tree), ...generalOffers(design, tree, draft)];
