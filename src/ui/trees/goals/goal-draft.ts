/** A goal while it is put together: what is asked for each kind, and what is missing. */
import { nanoid } from 'nanoid';
import { linkById, switchById } from '../../../core/design';
import type { Design, Goal, PlaceRef } from '../../../core/design';
import { formatVlanRanges } from '../../../core/standard';
import type { Ref } from '../../session/view';

export const TYPES: Record<Goal['type'], string> = {
  root: 'A switch is root',
  cut: 'A port is the blocked one',
  carries: 'A link carries VLANs',
  path: 'Two places communicate within limits',
  'never-root': 'A tier never becomes root',
  load: 'No link carries too much',
  'stays-connected': 'Connected after any failure',
  outage: 'No failure interrupts for long',
  'load-left': 'No link too full after any failure',
};

export interface Draft {
  readonly type: Goal['type'];
  readonly vlans: string;
  readonly switch: string;
  readonly next: string;
  readonly port: string;
  readonly only: boolean;
  readonly from: string;
  readonly to: string;
  readonly atMost: string;
  readonly avoid: string;
  readonly tier: 'core' | 'distribution' | 'access';
  readonly percent: string;
  readonly among: string;
  readonly seconds: string;
}

const placeKey = (p: { kind: string; id: string }) => `${p.kind} ${p.id}`;
const placeOf = (key: string): PlaceRef => {
  const [kind, ...id] = key.split(' ');
  return kind === 'host' ? { host: id.join(' ') } : { switch: id.join(' ') };
};

/** A draft as a goal, or a sentence about what is missing. */
export function goalOf(draft: Draft): Goal | string {
  const base = { id: `goal-${nanoid(6)}`, vlans: draft.vlans.trim() || 'all' };
  switch (draft.type) {
    case 'root':
      if (!draft.switch) return 'Choose the switch that should be root.';
      return { ...base, type: 'root', switch: draft.switch, ...(draft.next ? { next: draft.next } : {}) };
    case 'cut':
    case 'carries':
      if (!draft.port) return 'Choose the port, or select it on the chart first.';
      if (draft.type === 'cut') return { ...base, type: 'cut', port: draft.port };
      return { ...base, type: 'carries', port: draft.port, ...(draft.only ? { only: true } : {}) };
    case 'path': {
      if (!draft.from || !draft.to) return 'Choose both ends of the path.';
      if (draft.from === draft.to) return 'Both ends are the same: choose two different places.';
      if (draft.atMost.trim() === '' && !draft.avoid) return 'Give a limit: hops at most, or a switch to avoid.';
      const hops = draft.atMost.trim() === '' ? {} : { atMost: Number(draft.atMost) };
      const avoid = draft.avoid ? { avoid: draft.avoid } : {};
      return { ...base, type: 'path', from: placeOf(draft.from), to: placeOf(draft.to), ...hops, ...avoid };
    }
    case 'never-root':
      return { ...base, type: 'never-root', tier: draft.tier };
    case 'load':
      return { ...base, vlans: 'all', type: 'load', percent: Number(draft.percent) };
    case 'stays-connected': {
      if (draft.among !== 'pair')
        return { ...base, type: 'stays-connected', among: draft.among === 'hosts' ? 'hosts' : 'switches' };
      if (!draft.from || !draft.to) return 'Choose both places.';
      if (draft.from === draft.to) return 'Both places are the same: choose two different ones.';
      return { ...base, type: 'stays-connected', among: { from: placeOf(draft.from), to: placeOf(draft.to) } };
    }
    case 'outage':
      return { ...base, vlans: 'all', type: 'outage', atMost: Number(draft.seconds) };
    case 'load-left':
      return { ...base, vlans: 'all', type: 'load-left', percent: Number(draft.percent) };
  }
}

/** Ports and bundles of switch-to-switch links, by name. */
export function portOptions(design: Design): { id: string; name: string }[] {
  const bundled = new Set(design.bundles.flatMap((b) => b.members));
  const linked = new Set(
    design.links
      .flatMap((l) => ('port' in l.a && 'port' in l.b ? [l.a.port, l.b.port] : []))
      .concat(design.segments.flatMap((s) => s.ports)),
  );
  return [
    ...design.bundles.map((b) => ({ id: b.id, name: `${switchById(design, b.switch)?.name} ${b.name}` })),
    ...design.ports
      .filter((p) => linked.has(p.id) && !bundled.has(p.id))
      .map((p) => ({ id: p.id, name: `${switchById(design, p.switch)?.name} ${p.name}` })),
  ];
}

/** A draft filled in from what is selected and from the tree in view. */
export function draftFrom(design: Design, selection: readonly Ref[], vlans: readonly number[]): Draft {
  const picked = (kind: string) => selection.find((r) => r.kind === kind)?.id ?? '';
  const link = linkById(design, picked('link'));
  const end = link && ('port' in link.a ? link.a.port : 'port' in link.b ? link.b.port : '');
  const places = selection.filter((r) => r.kind === 'switch' || r.kind === 'host').map(placeKey);
  const port = picked('port') || picked('bundle') || end || '';
  return {
    type: port ? 'cut' : places.length === 2 ? 'path' : 'root',
    vlans: formatVlanRanges(vlans) || 'all',
    switch: picked('switch'),
    next: '',
    port,
    only: false,
    from: places[0] ?? '',
    to: places[1] ?? '',
    atMost: '',
    avoid: '',
    tier: 'access',
    percent: '80',
    among: places.length === 2 ? 'pair' : 'switches',
    seconds: '1',
  };
}
