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
});

/** On a shared segment it depends on who speaks first which of several guarded ports is shut. */
const mayBeShut = (design: Design, port: Port) => !design.segments.some((g) => g.ports.includes(port.id));

/** The design with guards on its ports, each set now and then. */
export const guardedNetworks = (networks: fc.Arbitrary<Design>): fc.Arbitrary<Design> =>
  fc.tuple(networks, fc.infiniteStream(armour)).map(([design, armours]) => ({
    ...design,
    ports: design.ports.map((port) => {
      const set = Object.entries(armours.next().value).filter(([, on]) => on);
      const armed = { ...port, ...Object.fromEntries(set) };
      return armed.bpduGuard && !mayBeShut(design, port) ? { ...armed, bpduGuard: false } : armed;
    }),
  }));
