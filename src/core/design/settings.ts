/** Tree settings of switches and ports: what is in force for a tree and why, and the edits that set it for some or all trees. */
import { BRIDGE_PRIORITY, PORT_PRIORITY } from '../standard';
import type { Edit } from './edits';
import { setField } from './edits';
import { switchById } from './look-ups';
import { isPerVlan, modeOf } from './schema';
import type { Design, Port, Switch } from './schema';
import type { Bundle } from './bundle-schema';

/** Which tree a setting is asked for: that of a VLAN, that of an MST instance (0: the CIST), or the one of all VLANs. */
export interface TreeKey {
  readonly vlan: number | null;
  readonly instance: number | null;
}

/** The trees a setting is meant for: every one, or those of some VLANs, or some MST instances. */
export type Scope = 'all' | readonly number[] | { readonly instances: readonly number[] };

/**
 * The scope that means one tree alone, on a switch: the common tree of a mixed network is VLAN 1's on a switch with a
 * tree per VLAN, and the one of all on a switch with a single tree.
 */
export function scopeAt(design: Design, s: Switch, { vlan, instance }: TreeKey): Scope {
  if (vlan !== null) return [vlan];
  const mode = modeOf(design, s);
  if (isPerVlan(mode)) return [1];
  return mode === 'mstp' && instance !== null ? { instances: [instance] } : 'all';
}

/** Where a value in force comes from. */
export type Source = 'default' | 'all-trees' | 'vlan' | 'instance';

export interface InForce {
  readonly value: number;
  readonly source: Source;
}

type Table = Record<string, number> | undefined;

function inForce(
  design: Design,
  at: string,
  own: number | undefined,
  vlans: Table,
  instances: Table,
  tree: TreeKey,
  otherwise: number,
): InForce {
  const s = switchById(design, at);
  const scope = s ? scopeAt(design, s, tree) : 'all';
  if (scope !== 'all') {
    const [table, key, source] =
      'instances' in scope
        ? ([instances, scope.instances[0], 'instance'] as const)
        : ([vlans, scope[0], 'vlan'] as const);
    const special = table?.[String(key)];
    if (special !== undefined) return { value: special, source };
  }
  return own === undefined ? { value: otherwise, source: 'default' } : { value: own, source: 'all-trees' };
}

/** Bridge priority of a switch in a tree. */
export const priorityInForce = (design: Design, s: Switch, tree: TreeKey): InForce =>
  inForce(design, s.id, s.priority, s.vlanPriority, s.instancePriority, tree, BRIDGE_PRIORITY.default);

/** Port priority too. */
export const portPriorityInForce = (design: Design, port: Port | Bundle, tree: TreeKey): InForce =>
  inForce(design, port.switch, port.priority, port.vlanPriority, port.instancePriority, tree, PORT_PRIORITY.default);

/** Port path cost too, in the CIST and in instances the internal one; `bySpeed` is what the speed gives. */
export function costInForce(design: Design, port: Port | Bundle, tree: TreeKey, bySpeed: number): InForce {
  const s = switchById(design, port.switch);
  const inside = s !== undefined && tree.instance !== null && modeOf(design, s) === 'mstp';
  const own = inside ? (port.internalCost ?? port.cost) : port.cost;
  return inForce(design, port.switch, own, port.vlanCost, port.instanceCost, tree, bySpeed);
}

interface Fields {
  readonly field: 'priority' | 'cost';
  readonly vlans: 'vlanPriority' | 'vlanCost';
  readonly instances: 'instancePriority' | 'instanceCost';
}
const PRIORITY: Fields = { field: 'priority', vlans: 'vlanPriority', instances: 'instancePriority' };
const COST: Fields = { field: 'cost', vlans: 'vlanCost', instances: 'instanceCost' };

/**
 * Edits that bring a value into force for all trees of the scope; null means the default again. For all trees the
 * settings of single VLANs and instances give way, so that the value really holds in every tree.
 */
function settingEdits(
  kind: 'switch' | 'port' | 'bundle',
  element: Switch | Port | Bundle,
  { field, vlans, instances }: Fields,
  scope: Scope,
  value: number | null,
): Edit[] {
  const tables = element as Partial<Record<Fields['vlans'] | Fields['instances'], Record<string, number>>>;
  const set = (name: string, to: number | null) => setField(kind, element.id, name as 'id', to);
  if (scope !== 'all') {
    if ('instances' in scope) return scope.instances.map((instance) => set(`${instances}.${instance}`, value));
    return scope.map((vlan) => set(`${vlans}.${vlan}`, value));
  }
  const special = [vlans, instances].flatMap((table) =>
    Object.keys(tables[table] ?? {}).map((key) => `${table}.${key}`),
  );
  return [...special.map((name) => set(name, null)), set(field, value)];
}

export const setBridgePriority = (s: Switch, scope: Scope, value: number | null): Edit[] =>
  settingEdits('switch', s, PRIORITY, scope, value);

export const setPortCost = (
  kind: 'port' | 'bundle',
  port: Port | Bundle,
  scope: Scope,
  value: number | null,
): Edit[] => [
  ...settingEdits(kind, port, COST, scope, value),
  ...(scope === 'all' && port.internalCost !== undefined ? [setField(kind, port.id, 'internalCost', null)] : []),
];

export const setPortPriority = (
  kind: 'port' | 'bundle',
  port: Port | Bundle,
  scope: Scope,
  value: number | null,
): Edit[] => settingEdits(kind, port, PRIORITY, scope, value);
