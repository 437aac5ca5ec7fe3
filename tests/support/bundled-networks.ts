/** Random networks with bundles of all kinds: unlike members, minimum and maximum, cabled crosswise, to hosts and to single ports. */
import fc from 'fast-check';
import { emptyDesign } from '@/core/design';
import type { Bundle, Design, Host, Mode } from '@/core/design';
import { numberToMac } from '@/core/standard';

const rarely = fc.integer({ min: 0, max: 9 }).map((n) => n === 0);
const lacpPriority = fc.constantFrom(undefined, undefined, 1, 65535);
const end = fc.record({
  at: fc.nat(),
  /** Bundle of its switch that the port is a member of: two of them, or none. */
  bundle: fc.constantFrom(0, 0, 0, 1, 1, null),
  lacpPriority,
  half: rarely,
  speed: fc.constantFrom(1000, 1000, 1000, 1000, 100, 10000),
  down: rarely,
});
const bundle = fc.record({
  kind: fc.constantFrom('lacp' as const, 'lacp' as const, 'lacp' as const, 'own' as const, 'static' as const),
  activity: fc.constantFrom(undefined, undefined, 'passive' as const),
  timeout: fc.constantFrom(undefined, 'short' as const),
  minActive: fc.constantFrom(undefined, undefined, 1, 2, 3),
  maxActive: fc.constantFrom(undefined, undefined, 1, 2),
  minRate: fc.constantFrom(undefined, undefined, undefined, undefined, 1500, 2000),
  systemMac: fc.constantFrom(undefined, undefined, undefined, undefined, '02:00:5e:00:53:f0', '00:00:5e:00:53:00'),
  systemPriority: fc.constantFrom(undefined, undefined, undefined, 1, 65535),
  returnDelay: fc.constantFrom(undefined, undefined, 5),
  keepsWorking: fc.constantFrom(undefined, undefined, true),
  individual: fc.constantFrom(undefined, false, true),
  ownKey: fc.boolean(),
});

/** Leaves out what is not set. */
const given = <T extends object>(of: T): T =>
  Object.fromEntries(Object.entries(of).filter(([, v]) => v !== undefined)) as T;

/** Up to five switches, the last of them now and then a host with its cards, and up to twelve cables. */
export const bundledNetworks: fc.Arbitrary<Design> = fc
  .record({
    switches: fc.array(
      fc.record({
        priority: fc.constantFrom(32768, 4096, 0),
        lacpPriority,
        bundles: fc.array(bundle, { minLength: 2, maxLength: 2 }),
        off: fc.integer({ min: 0, max: 19 }).map((n) => n === 0),
      }),
      { minLength: 2, maxLength: 4 },
    ),
    macs: fc.uniqueArray(fc.integer({ min: 1, max: 255 }), { minLength: 4, maxLength: 4 }),
    bond: fc.constantFrom<Host['bond']>('lacp-active', 'lacp-passive', 'static', undefined),
    hosted: fc.integer({ min: 0, max: 3 }),
    cables: fc.array(fc.record({ a: end, b: end, down: rarely }), { minLength: 2, maxLength: 12 }),
  })
  .map(({ switches, macs, bond, hosted, cables }) => {
    const design = { ...emptyDesign('network'), mode: 'rstp' as Mode, vlans: [{ id: 'v10', number: 10 }] };
    switches.forEach(({ priority, lacpPriority: system, off }, i) =>
      design.switches.push(
        given({
          id: `s${i}`,
          name: `s${i}`,
          mac: numberToMac(0x00005e005300 + macs[i]!),
          priority,
          lacpPriority: system,
          off: off || undefined,
        }),
      ),
    );
    design.hosts.push(given({ id: 'h', name: 'h', bond }));
    const members = switches.map((): [string[], string[]] => [[], []]);
    const used = switches.map(() => 0);
    const plug = (e: (typeof cables)[number]['a']) => {
      const at = e.at % switches.length;
      const number = ++used[at]!;
      const id = `s${at}.${number}`;
      design.ports.push(
        given({
          id,
          switch: `s${at}`,
          name: `${number}`,
          number,
          speed: e.speed,
          lacpPriority: e.lacpPriority,
          duplex: e.half ? 'half' : undefined,
          down: e.down || undefined,
        }),
      );
      if (e.bundle !== null) members[at]![e.bundle].push(id);
      return { port: id };
    };
    cables.forEach(({ a, b, down }, n) => {
      const near = plug(a);
      design.links.push({
        id: `l${n}`,
        a: near,
        b: n < hosted ? { host: 'h' } : plug(b),
        ...(down ? { down: true } : {}),
      });
    });
    switches.forEach(({ bundles }, i) =>
      bundles.forEach(({ ownKey, ...b }, k) => {
        if (members[i]![k]!.length < 1) return;
        const of: Bundle = {
          id: `s${i}-b${k}`,
          switch: `s${i}`,
          name: `b${k}`,
          number: 101 + k,
          members: members[i]![k]!,
          ...b,
          // Two bundles of a switch with one key would be one to their partner.
          key: ownKey ? 7 + k : undefined,
        };
        const { minActive: min, maxActive: max } = of;
        design.bundles.push(given({ ...of, minActive: min && max ? Math.min(min, max) : min }));
      }),
    );
    return design;
  });
