/** Bundles as they are against bundles as they are designed. */
import { bundlesOf, portsOf } from '../../design';
import type { Bundle, Design, ObservedNetwork, ObservedSwitch, Switch } from '../../design';
import { LACP_PRIORITY } from '../../standard';
import { elementCalled } from '../draw/names';
import type { Difference } from './difference';
import { differing } from './fields';
import type { Pair } from './fields';

type ObservedBundle = ObservedNetwork['bundles'][number];

const inOrder = (names: readonly string[]): string =>
  [...names].sort((x, y) => x.localeCompare(y, 'en', { numeric: true })).join(', ');

const memberNames = (design: Design, b: Bundle): string =>
  inOrder(portsOf(design, b.switch).flatMap((p) => (b.members.includes(p.id) ? [p.name] : [])));

/** A bundle that is on one side alone. */
const alone = (
  s: Switch,
  name: string,
  verdict: 'missing' | 'unexpected',
  members: string,
  id: string | null,
): Difference => ({
  device: `${s.name} ${name}`,
  field: 'bundle',
  designed: verdict === 'missing' ? members : null,
  observed: verdict === 'missing' ? null : members,
  verdict,
  switch: s.id,
  element: id,
  kind: 'bundle',
});

function pairsOf(s: Switch, own: Bundle, b: ObservedBundle): Pair[] {
  const lacp = own.kind === 'lacp';
  return [
    // What a maker's switches negotiate among themselves is in no object: it looks like none.
    ['negotiation', own.kind, own.kind === 'own' && b.mode === 'static' ? null : b.mode],
    ['LACP system', own.systemMac ?? s.mac, lacp ? b.system : null],
    [
      'LACP system priority',
      own.systemPriority ?? s.lacpPriority ?? LACP_PRIORITY.default,
      lacp ? b.systemPriority : null,
    ],
    ['activity', own.activity ?? 'active', lacp ? b.activity : null],
    ['timeout', own.timeout ?? 'long', lacp ? b.timeout : null],
  ];
}

/** Bundles of a switch, by name or by a member in common: frames do not tell what a bundle is called, and its members do. */
export function bundlesAgainst(
  design: Design,
  s: Switch,
  o: ObservedSwitch,
  observed: readonly ObservedBundle[],
): Difference[] {
  const designed = bundlesOf(design, s.id);
  // A device that was asked tells of all its ports and bundles; frames tell of those that speak.
  const tells = o.ports.some((p) => p.up !== undefined);
  const seen = new Set<string>();
  const found = observed.flatMap((b): Difference[] => {
    const ports = b.members.map((m) => elementCalled(design, s, m));
    const held = new Set(ports.flatMap((p) => (p ? [p.id] : [])));
    const own =
      designed.find((d) => d.name.toLowerCase() === b.name.toLowerCase()) ??
      designed.find((d) => d.members.some((m) => held.has(m)));
    const members = inOrder(b.members.map((m, i) => ports[i]?.name ?? m));
    if (!own) return [alone(s, b.name, 'unexpected', members, null)];
    seen.add(own.id);
    const pairs: Pair[] = [['members', memberNames(design, own), tells ? members : null], ...pairsOf(s, own, b)];
    return differing(`${s.name} ${own.name}`, pairs, { switch: s.id, element: own.id, kind: 'bundle' });
  });
  const missing = tells ? designed.filter((b) => !seen.has(b.id) && b.members.length > 0) : [];
  return [...found, ...missing.map((b) => alone(s, b.name, 'missing', memberNames(design, b), b.id))];
}
