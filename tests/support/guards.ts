/** Ports with guards and filters, drawn at random. */
import fc from 'fast-check';
import type { Design, Port } from '@/core/design';

const now = (of: number) => fc.nat(of - 1).map((n) => n === 0);

/** What a port is armed with. */
const armour = fc.record({
  rootGuard: now(4),
  bpduFilter: now(9),
  bpduGuard: now(9),
  loopGuard: now(6),
  edge: now(5),
  autoEdge: now(5),
  filterYields: now(2),
  silenceGuard: now(4),
});
/** What a switch gives its edge ports. */
const byDefault = fc.record({ edgeGuard: now(5), edgeFilter: now(5) });
const only = (of: object) => Object.fromEntries(Object.entries(of).filter(([, on]) => on));

/** On a shared segment it depends on who speaks first which of several guarded ports is shut. */
const mayBeShut = (design: Design, port: Port) => !design.segments.some((g) => g.ports.includes(port.id));

/** The design with guards on its ports, each set now and then. */
export const guardedNetworks = (networks: fc.Arbitrary<Design>): fc.Arbitrary<Design> =>
  fc.tuple(networks, fc.infiniteStream(armour), fc.infiniteStream(byDefault)).map(([design, armours, defaults]) => ({
    ...design,
    switches: design.switches.map((s) => ({ ...s, ...only(defaults.next().value) })),
    ports: design.ports.map((port) => {
      const armed = { ...port, ...only(armours.next().value) };
      return mayBeShut(design, port) ? armed : { ...armed, bpduGuard: false };
    }),
  }));
