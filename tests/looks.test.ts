/** What changed is looked at, nothing else: the rehearsal finds the same as if it looked at everything each time. */
import fc from 'fast-check';
import type { Design, Script } from '@/core/design';
import { advance, startRehearsal, traceOf } from '@/core/simulation';
import { LAST_KIND, eventFor } from './support/events';
import { runs } from './support/runs';
import { wholeNetworks } from './support/whole-networks';

const UNTIL = 90_000_000;

/** Hosts at both ends of the design, in one VLAN each, so that pairs talk through it. */
function withHosts(design: Design): Design {
  const next = structuredClone(design) as Design & { hosts: Design['hosts'][number][] };
  design.switches.forEach((s, i) => {
    const number = 60 + i;
    const id = `${s.id}:host`;
    next.ports.push({ id, switch: s.id, name: `${number}`, number, speed: 1000, edge: i % 2 === 0 });
    next.hosts.push({ id: `h${i}`, name: `h${i}`, vlan: design.vlans[i % 2]?.number ?? 1 });
    next.links.push({ id: `l${id}`, a: { port: id }, b: { host: `h${i}` } });
  });
  return next;
}

function run(design: Design, script: Script, everything: boolean) {
  const r = startRehearsal(design, script);
  while (advance(r, UNTIL, everything ? { turn: 1, most: 400_000 } : { most: 400_000 }) === 'paused') {
    r.world.stirred = null;
    r.world.spreads.clear();
    r.world.lans = r.world.stalePorts = null;
  }
  const { contacts, reach, loops } = traceOf(r, r.world.now, 'end');
  return { contacts, reach, loops };
}

test('contact, reach and loops are the same', () => {
  const moves = fc.array(
    fc.record({ kind: fc.nat({ max: LAST_KIND }), which: fc.nat(), at: fc.integer({ min: 1, max: 60 }) }),
    { minLength: 1, maxLength: 6 },
  );
  let told = 0;
  fc.assert(
    fc.property(wholeNetworks.map(withHosts), moves, fc.constantFrom(undefined, 7, 40), (design, all, answersEvery) => {
      const events = all.flatMap(({ kind, which, at }, i) => eventFor(design, kind, which, at, `e${i}`));
      const [first, ...others] = design.hosts;
      const probes = others.slice(0, 5).map((h, i) => ({
        from: first!.id,
        to: h.id,
        vlan: first!.vlan ?? 1,
        ...(answersEvery && i % 2 === 0 && { answersEvery }),
      }));
      const script: Script = { id: 's', name: 's', until: UNTIL / 1e6, events, probes };
      const found = run(design, script, false);
      told += found.contacts.reduce((sum, lane) => sum + lane.spans.length - 1, 0);
      expect(found).toEqual(run(design, script, true));
    }),
    { ...runs(60), ...(process.env.FUZZ ? {} : { seed: 20261201 }), endOnFailure: true },
  );
  expect(told).toBeGreaterThan(0);
});
