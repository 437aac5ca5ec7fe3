/** What a script can do to the things that are selected. */
import { bundleById, farEnd, linkAt, linkById, portById } from '../../core/design';
import type { Design, ScriptEvent } from '../../core/design';
import type { Ref } from '../session/view';

type Offer = { readonly name: string; readonly event: Omit<ScriptEvent, 'id'> };

function linkOffers(id: string, at: number): Offer[] {
  return [
    { name: 'Fail this link', event: { kind: 'link-down', at, link: id } as never },
    { name: 'Restore it', event: { kind: 'link-up', at, link: id } as never },
    { name: 'Fail at end a alone', event: { kind: 'link-down', at, link: id, end: 'a' } as never },
    { name: 'Let it flap 5 times', event: { kind: 'flap', at, link: id, times: 5, every: 1 } as never },
    { name: 'Lose BPDUs of end a', event: { kind: 'bpdu-loss', at, link: id, from: 'a' } as never },
  ];
}

function switchOffers(id: string, at: number): Offer[] {
  return [
    { name: 'Switch it off', event: { kind: 'switch-off', at, switch: id } as never },
    { name: 'Switch it on', event: { kind: 'switch-on', at, switch: id } as never },
    { name: 'Spanning tree off', event: { kind: 'tree-off', at, switch: id } as never },
    {
      name: 'Set its priority to 0',
      event: {
        kind: 'set',
        at,
        label: 'priority 0',
        edits: [{ type: 'set', kind: 'switch', id, field: 'priority', value: 0 }],
      } as never,
    },
  ];
}

function portOffers(design: Design, id: string, at: number): Offer[] {
  const link = linkAt(design, id);
  const far = link && farEnd(link, id);
  const plugged: Offer[] = [
    { name: 'Plug a hub with a loop in', event: { kind: 'hub-loop', at, port: id } as never },
    { name: 'Plug an intruder in', event: { kind: 'intruder', at, port: id, priority: 0 } as never },
    { name: 'Unplug it again', event: { kind: 'unplug', at, port: id } as never },
  ];
  return [...(link ? linkOffers(link.id, at) : []), ...(!far || 'host' in far ? plugged : [])];
}

function bundleOffers(design: Design, id: string, at: number): Offer[] {
  const bundle = bundleById(design, id);
  const links = (bundle?.members ?? []).flatMap((m) => linkAt(design, m)?.id ?? []);
  return [
    ...(links[0] ? [{ name: 'Fail one member', event: { kind: 'link-down', at, link: links[0] } as never }] : []),
    ...(links[0] ? [{ name: 'Restore it', event: { kind: 'link-up', at, link: links[0] } as never }] : []),
    {
      name: 'Make it static at this end alone',
      event: {
        kind: 'set',
        at,
        label: `bundle ${bundle?.name} static at one end`,
        edits: [{ type: 'set', kind: 'bundle', id, field: 'kind', value: 'static' }],
      } as never,
    },
  ];
}

export function suggestions(design: Design, selection: readonly Ref[], at: number): Offer[] {
  const ports = selection.flatMap((r) => (r.kind === 'port' && portById(design, r.id) ? [r.id] : []));
  if (ports.length === 2 && ports.every((id) => !linkAt(design, id)))
    return [{ name: 'Plug a cable in between', event: { kind: 'cable', at, a: ports[0]!, b: ports[1]! } as never }];
  const [first] = selection;
  if (!first) return [];
  switch (first.kind) {
    case 'link':
      return linkById(design, first.id) ? linkOffers(first.id, at) : [];
    case 'switch':
      return switchOffers(first.id, at);
    case 'port':
      return bundleById(design, first.id) ? bundleOffers(design, first.id, at) : portOffers(design, first.id, at);
    case 'bundle':
      return bundleOffers(design, first.id, at);
    default:
      return [];
  }
}
