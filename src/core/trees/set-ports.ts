/** Ports at which something is set that trees depend on: most have nothing, and are looked at once. */
import type { Bundle, Port } from '../design';
import { remembered } from '../remembered';
import type { LogicalPort } from './topology';

const isSet = (e: Port | Bundle): boolean =>
  e.vlanCost !== undefined ||
  e.vlanPriority !== undefined ||
  e.instanceCost !== undefined ||
  e.instancePriority !== undefined ||
  e.edge !== undefined ||
  e.bpduGuard !== undefined ||
  e.bpduFilter !== undefined ||
  e.silenceGuard !== undefined ||
  e.rootGuard !== undefined;

/** Indices of ports with a setting for single trees or a guard, ascending. */
export const setPorts = remembered((ports: readonly LogicalPort[]): readonly number[] => {
  const found: number[] = [];
  for (let i = 0; i < ports.length; i++) if (isSet(ports[i]!.element)) found.push(i);
  return found;
});

/** Those of them at which `has` holds, remembered as long as the ports are. */
export const portsThat = (has: (element: Port | Bundle) => boolean) =>
  remembered((ports: readonly LogicalPort[]): readonly number[] =>
    setPorts(ports).filter((p) => has(ports[p]!.element)),
  );
