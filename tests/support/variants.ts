/** Pairs of designs of which one is the other with random changes, as two variants are. */
import fc from 'fast-check';
import { MODES, addElement, applyEdits, integrityFaults, setField } from '@/core/design';
import type { Design, Edit } from '@/core/design';
import { numberToMac } from '@/core/standard';

/** One change: what kind, and numbers that choose where and to what. */
type Change = readonly [kind: number, where: number, value: number];

const pick = <T>(list: readonly T[], n: number): T | undefined => list[n % Math.max(1, list.length)];

const CHANGES: readonly ((d: Design, where: number, value: number) => Edit[])[] = [
  (d, w, v) =>
    d.switches
      .slice(w % d.switches.length, (w % d.switches.length) + 1)
      .map((s) => setField('switch', s.id, 'priority', (v % 16) * 4096)),
  (d, w, v) => d.ports.slice(w, w + 1).map((p) => setField('port', p.id, 'cost', 1 + (v % 60_000))),
  (d, w, v) => d.ports.slice(w, w + 1).map((p) => setField('port', p.id, 'priority', (v % 16) * 16)),
  (d, w) => d.links.slice(w, w + 1).map((l) => setField('link', l.id, 'down', l.down ? null : true)),
  (d, w) => d.links.slice(w, w + 1).map((l): Edit => ({ type: 'remove', kind: 'link', id: l.id })),
  (d, w, v) => {
    const [a, b] = [pick(d.switches, w), pick(d.switches, v)];
    if (!a || !b || a === b) return [];
    const port = (at: string, n: number) => ({
      id: `${at}.new${n}`,
      switch: at,
      name: `new${n}`,
      number: 900 + n,
      speed: 1000,
    });
    const [one, two] = [port(a.id, v % 40), port(b.id, 50 + (w % 40))];
    const link = { id: `new-${one.id}`, a: { port: one.id }, b: { port: two.id } };
    return [addElement('port', one), addElement('port', two), addElement('link', link)];
  },
  (d, w, v) => d.ports.slice(w, w + 1).map((p) => setField('port', p.id, 'vlans', v % 2 ? '10' : '10,20')),
  (d, w, v) =>
    d.switches
      .slice(w % d.switches.length, (w % d.switches.length) + 1)
      .map((s) => setField('switch', s.id, 'protocol', pick(MODES, v)!)),
  (_, __, v) => [{ type: 'settings', field: 'mode', value: pick(MODES, v)! }],
  (_, __, v) => [{ type: 'settings', field: 'costScale', value: v % 2 ? 'long' : 'short' }],
  (d, w) => d.bundles.slice(w % 7, (w % 7) + 1).map((b): Edit => ({ type: 'remove', kind: 'bundle', id: b.id })),
  (d, w, v) =>
    d.bundles.slice(w % 7, (w % 7) + 1).map((b) => setField('bundle', b.id, 'kind', v % 2 ? 'static' : 'lacp')),
  (d, w) =>
    d.switches
      .slice(w % d.switches.length, (w % d.switches.length) + 1)
      .map((s) => setField('switch', s.id, 'off', s.off ? null : true)),
  (d, w, v) =>
    d.ports
      .slice(w, w + 1)
      .map((p) => setField('port', p.id, (['rootGuard', 'bpduGuard', 'tcGuard', 'loopGuard'] as const)[v % 4]!, true)),
  (d, w) => d.regions.slice(w % 3, (w % 3) + 1).map((r) => setField('region', r.id, 'map', { '1': '10', '2': '20' })),
  (d, w, v) => d.regions.slice(w % 3, (w % 3) + 1).map((r) => setField('region', r.id, 'revision', v % 3)),
  (d, _, v) => [addElement('vlan', { id: `new${v}`, number: 100 + (v % 50) })].slice(0, d.vlans.length < 6 ? 1 : 0),
  (d, _, v) => [
    addElement('switch', { id: `new${v % 3}`, name: `new${v % 3}`, mac: numberToMac(900 + (v % 3)) }),
    addElement('port', { id: `new${v % 3}.1`, switch: `new${v % 3}`, name: '1', number: 1, speed: 1000 }),
    ...d.ports.slice(0, 0).map((p) => setField('port', p.id, 'cost', 1)),
  ],
];

/** Changes that do not fit are left out. */
function changed(design: Design, changes: readonly Change[]): Design {
  return changes.reduce((d, [kind, where, value]) => {
    const edits = CHANGES[kind]!(
      d,
      kind === 4 || kind === 3 ? where % Math.max(1, d.links.length) : where % Math.max(1, d.ports.length),
      value,
    );
    const applied = applyEdits(d, edits);
    return applied.ok ? applied.design : d;
  }, design);
}

/** A network, and the same with up to so many changes. */
export const variantsOf = (networks: fc.Arbitrary<Design>, most = 6): fc.Arbitrary<readonly [Design, Design]> =>
  fc
    .tuple(
      // Such as could be opened: others cannot be changed back to.
      networks.filter((design) => integrityFaults(design).length === 0),
      fc.array(fc.tuple(fc.integer({ min: 0, max: CHANGES.length - 1 }), fc.nat(), fc.nat()), {
        minLength: 1,
        maxLength: most,
      }),
    )
    .map(([design, changes]) => [design, changed(design, changes)] as const);

/** The design before it had regions: every switch by itself, with nothing set for instances. */
export function beforeRegions(design: Design): Design {
  const plain = <T extends object>(e: T, fields: readonly string[]): T =>
    Object.fromEntries(Object.entries(e).filter(([field]) => !fields.includes(field))) as T;
  const ofPort = ['instanceCost', 'instancePriority'];
  return {
    ...design,
    regions: [],
    switches: design.switches.map((s) =>
      plain(s, ['region', 'mstName', 'mstRevision', 'vlanInstance', 'instancePriority']),
    ),
    ports: design.ports.map((p) => plain(p, ofPort)),
    bundles: design.bundles.map((b) => plain(b, ofPort)),
  };
}

/** Variants of which one has no regions yet, or no longer. */
export const regionsComing = (networks: fc.Arbitrary<Design>): fc.Arbitrary<readonly [Design, Design]> =>
  fc
    .tuple(variantsOf(networks), fc.boolean())
    .map(([[from, to], come]) => (come ? [beforeRegions(from), to] : [from, beforeRegions(to)]));
