/** Settings made for single VLANs or instances, gathered once for as long as the switches and ports that have them are the same. */
import { remembered } from '../remembered';
import { setPorts } from './set-ports';
import type { Topology } from './topology';

/** One setting made for a single VLAN or instance: a bridge's priority, a port's cost, a port's priority. */
export interface Override {
  readonly field: 'bridgePriority' | 'portCost' | 'portId';
  readonly index: number;
  readonly value: number;
}

type OverrideTable = 'vlan' | 'instance';

type Overrides = ReadonlyMap<number, readonly Override[]>;
type Table = Readonly<Record<string, number>> | undefined;

/** Gathers settings by the VLAN or instance that they are made for. */
function gather(visit: (add: (table: Table, field: Override['field'], index: number) => void) => void): Overrides {
  const found = new Map<number, Override[]>();
  visit((table, field, index) => {
    for (const key in table) {
      const override = { field, index, value: table[key]! };
      const list = found.get(Number(key));
      if (list) list.push(override);
      else found.set(Number(key), [override]);
    }
  });
  return found;
}

const ofSwitches = (kind: OverrideTable) =>
  remembered((switches: Topology['design']['switches']) =>
    gather((add) => switches.forEach((s, b) => add(s[`${kind}Priority`], 'bridgePriority', b))),
  );
const ofPorts = (kind: OverrideTable) =>
  remembered((ports: Topology['ports']) =>
    gather((add) =>
      setPorts(ports).forEach((i) => {
        const { element } = ports[i]!;
        add(element[`${kind}Cost`], 'portCost', i);
        add(element[`${kind}Priority`], 'portId', i);
      }),
    ),
  );
const OVERRIDES = {
  vlan: { switches: ofSwitches('vlan'), ports: ofPorts('vlan') },
  instance: { switches: ofSwitches('instance'), ports: ofPorts('instance') },
};
export const NO_OVERRIDES: readonly Override[] = [];

/** All settings for single VLANs, or for single instances, by number. */
export function overridesBy({ design, ports }: Topology, kind: OverrideTable): (number: number) => readonly Override[] {
  const bridges = OVERRIDES[kind].switches(design.switches);
  const atPorts = OVERRIDES[kind].ports(ports);
  return (number) => {
    const [a, b] = [bridges.get(number), atPorts.get(number)];
    return a && b ? [...a, ...b] : (a ?? b ?? NO_OVERRIDES);
  };
}
