/** Random networks whose cables carry some of two VLANs, with hosts: small enough to look at every failure by hand. */
import fc from 'fast-check';
import { emptyDesign } from '@/core/design';
import type { Design } from '@/core/design';
import { numberToMac } from '@/core/standard';

export const VLANS = [10, 20] as const;
const SETS = ['10', '20', '10,20', '10,20'];

interface Spec {
  readonly switches: number;
  readonly cables: readonly (readonly [a: number, b: number, set: number])[];
  readonly hosts: readonly (readonly [at: number, vlan: number, second: number | null])[];
}

function designOf({ switches, cables, hosts }: Spec): Design {
  const design = emptyDesign('random');
  design.vlans = VLANS.map((number) => ({ id: `v${number}`, number }));
  design.switches = Array.from({ length: switches }, (_, i) => ({
    id: `s${i}`,
    name: `s${i}`,
    mac: numberToMac(i + 1),
  }));
  const used = new Map<number, number>();
  const port = (at: number, vlans: string, native?: number) => {
    const number = (used.get(at) ?? 0) + 1;
    used.set(at, number);
    const id = `s${at}.${number}`;
    design.ports.push({
      id,
      switch: `s${at}`,
      name: `${number}`,
      number,
      speed: 1000,
      vlans,
      ...(native ? { native } : {}),
    });
    return { port: id };
  };
  cables.forEach(([a, far, set], i) => {
    const b = far === a ? (a + 1) % switches : far;
    const vlans = SETS[set]!;
    design.links.push({ id: `l${i}`, a: port(a, vlans), b: port(b, vlans) });
  });
  hosts.forEach(([at, v, second], i) => {
    const vlan = VLANS[v]!;
    design.hosts.push({ id: `h${i}`, name: `h${i}` });
    for (const on of second === null || second === at ? [at] : [at, second])
      design.links.push({ id: `h${i}-${on}`, a: port(on, String(vlan), vlan), b: { host: `h${i}` } });
  });
  return design;
}

export const vlanNetworks: fc.Arbitrary<Design> = fc
  .integer({ min: 2, max: 7 })
  .chain((switches) => {
    const at = fc.integer({ min: 0, max: switches - 1 });
    return fc.record({
      switches: fc.constant(switches),
      cables: fc.array(fc.tuple(at, at, fc.integer({ min: 0, max: 3 })), { minLength: 1, maxLength: 10 }),
      hosts: fc.array(fc.tuple(at, fc.integer({ min: 0, max: 1 }), fc.option(at)), { maxLength: 3 }),
    });
  })
  .map(designOf);

/** The same with one VLAN on every cable, and no host. */
export const plainNetworks = (most: number): fc.Arbitrary<Design> =>
  fc
    .integer({ min: 2, max: most })
    .chain((switches) => {
      const at = fc.integer({ min: 0, max: switches - 1 });
      return fc.record({
        switches: fc.constant(switches),
        cables: fc.array(fc.tuple(at, at, fc.constant(2)), { minLength: switches - 1, maxLength: switches + 2 }),
        hosts: fc.constant([]),
      });
    })
    .map(designOf);
