/** Designs made from a plain list of bridges and LANs, for fixtures and random networks. */
import fc from 'fast-check';
import { emptyDesign } from '@/core/design';
import type { Design, Mode, Port } from '@/core/design';
import { numberToMac } from '@/core/standard';

export interface BridgeSpec {
  id: string;
  mac: string;
  priority: number;
  off?: boolean;
  vlanPriority?: Record<string, number>;
}

export interface EndSpec {
  bridge: string;
  port: number;
  cost: number;
  priority: number;
  down?: boolean;
  vlans?: string;
  vlanCost?: Record<string, number>;
}

export interface LanSpec {
  ends: EndSpec[];
  down?: boolean;
}

/** Two ends make a link, more make a shared segment, a single one a segment with one port on it. */
export function designFrom(bridges: BridgeSpec[], lans: LanSpec[], mode: Mode = 'stp', vlans = [1]): Design {
  const design = emptyDesign('network');
  design.mode = mode;
  design.vlans = vlans.map((number) => ({ id: `v${number}`, number }));
  design.switches = bridges.map(({ id, ...rest }) => ({ ...rest, id, name: id }));
  const portId = (end: EndSpec) => `${end.bridge}.${end.port}`;
  for (const [n, lan] of lans.entries()) {
    for (const end of lan.ends) {
      const port: Port = {
        id: portId(end),
        switch: end.bridge,
        name: `${end.port}`,
        number: end.port,
        speed: 1000,
        cost: end.cost,
        priority: end.priority,
      };
      if (end.down) port.down = true;
      if (end.vlans) port.vlans = end.vlans;
      if (end.vlanCost) port.vlanCost = end.vlanCost;
      design.ports.push(port);
    }
    const down = lan.down ? { down: true } : {};
    if (lan.ends.length === 2)
      design.links.push({ id: `l${n}`, a: { port: portId(lan.ends[0]!) }, b: { port: portId(lan.ends[1]!) }, ...down });
    else design.segments.push({ id: `g${n}`, name: `g${n}`, ports: lan.ends.map(portId), ...down });
  }
  return design;
}

const rarely = fc.integer({ min: 0, max: 9 }).map((n) => n === 0);
/** Few different values, so that ties of every kind are common. */
const cost = fc.constantFrom(1, 2, 4, 4, 19, 19, 38);
const portPriority = fc.constantFrom(128, 128, 128, 0, 16, 240);
const bridgePriority = fc.constantFrom(32768, 32768, 32768, 4096, 0, 61440);
const vlanSets = fc.constantFrom('all', 'all', '10', '20', '10,20', '5-15');

const rawEnd = fc.record({
  bridge: fc.nat(),
  cost,
  priority: portPriority,
  down: rarely,
  vlans: vlanSets,
  vlanCost: fc.option(cost, { freq: 4 }),
});

/** Random networks: parallel links, loop-back cables, shared segments, unequal costs, disabled parts, VLANs 10 and 20. */
export const networks: fc.Arbitrary<Design> = fc
  .record({
    bridges: fc.array(
      fc.record({ priority: bridgePriority, own: fc.option(bridgePriority, { freq: 3 }), off: rarely }),
      { minLength: 1, maxLength: 9 },
    ),
    macs: fc.uniqueArray(fc.integer({ min: 1, max: 255 }), { minLength: 9, maxLength: 9 }),
    lans: fc.array(
      fc.record({
        ends: fc.oneof(
          { weight: 6, arbitrary: fc.array(rawEnd, { minLength: 2, maxLength: 2 }) },
          { weight: 1, arbitrary: fc.array(rawEnd, { minLength: 1, maxLength: 5 }) },
        ),
        down: rarely,
      }),
      { maxLength: 18 },
    ),
    mode: fc.constantFrom<Mode>('per-vlan-rstp', 'per-vlan-rstp', 'rstp', 'stp'),
    numbers: fc.infiniteStream(fc.boolean()),
  })
  .map(({ bridges, macs, lans, mode }) => {
    const specs = bridges.map((b, i) => ({
      id: `s${i}`,
      mac: numberToMac(0x00005e005300 + macs[i]!),
      priority: b.priority,
      ...(b.off ? { off: true } : {}),
      ...(b.own === null ? {} : { vlanPriority: { '10': b.own } }),
    }));
    const used = specs.map(() => 0);
    const lanSpecs = lans.map((lan) => ({
      down: lan.down,
      ends: lan.ends.map((end) => {
        const at = end.bridge % specs.length;
        return {
          bridge: specs[at]!.id,
          port: ++used[at]!,
          cost: end.cost,
          priority: end.priority,
          down: end.down,
          vlans: end.vlans,
          ...(end.vlanCost === null ? {} : { vlanCost: { '20': end.vlanCost } }),
        };
      }),
    }));
    return designFrom(specs, lanSpecs, mode, [10, 20]);
  });
