/** Tree settings of switches and ports: what is in force for a tree and why, and the edits that set it for some or all trees. */
import { BRIDGE_PRIORITY, PORT_PRIORITY } from '../standard';
import type { Edit } from './edits';
import { setField } from './edits';
import type { Bundle, Design, Port, Switch } from './schema';
import { isPerVlan } from './schema';

/** The trees a setting is meant for: every one, or those of some VLANs. */
export type Scope = 'all' | readonly number[];

/** Where a value in force comes from. */
export type Source = 'default' | 'all-trees' | 'vlan';

export interface InForce {
  readonly value: number;
  readonly source: Source;
}

function inForce(
  design: Design,
  own: number | undefined,
  table: Record<string, number> | undefined,
  vlan: number | null,
  otherwise: number,
): InForce {
  const special = vlan === null || !isPerVlan(design.mode) ? undefined : table?.[String(vlan)];
  if (special !== undefined) return { value: special, source: 'vlan' };
  return own === undefined ? { value: otherwise, source: 'default' } : { value: own, source: 'all-trees' };
}

/** Bridge priority of a switch in the tree of a VLAN, or in the one tree of all (null). */
export const priorityInForce = (design: Design, s: Switch, vlan: number | null): InForce =>
  inForce(design, s.priority, s.vlanPriority, vlan, BRIDGE_PRIORITY.default);

/** Port priority likewise. */
export const portPriorityInForce = (design: Design, port: Port | Bundle, vlan: number | null): InForce =>
  inForce(design, port.priority, port.vlanPriority, vlan, PORT_PRIORITY.default);

/** Port path cost likewise; `bySpeed` is what the speed gives. */
export const costInForce = (design: Design, port: Port | Bundle, vlan: number | null, bySpeed: number): InForce =>
  inForce(design, port.cost, port.vlanCost, vlan, bySpeed);

type Setting =
  | { kind: 'switch'; element: Switch; field: 'priority'; table: 'vlanPriority' }
  | { kind: 'port' | 'bundle'; element: Port | Bundle; field: 'cost'; table: 'vlanCost' }
  | { kind: 'port' | 'bundle'; element: Port | Bundle; field: 'priority'; table: 'vlanPriority' };

/**
 * Edits that bring a value into force for all trees of the scope; null means the default again. For all trees the
 * settings of single VLANs give way, so that the value really holds in every tree.
 */
function settingEdits(setting: Setting, scope: Scope, value: number | null): Edit[] {
  const { kind, element, field, table } = setting;
  const special = element as { vlanPriority?: Record<string, number>; vlanCost?: Record<string, number> };
  const set = (name: string, to: number | null) => setField(kind, element.id, name as 'id', to);
  if (scope !== 'all') return scope.map((vlan) => set(`${table}.${vlan}`, value));
  return [...Object.keys(special[table] ?? {}).map((vlan) => set(`${table}.${vlan}`, null)), set(field, value)];
}

export const setBridgePriority = (s: Switch, scope: Scope, value: number | null): Edit[] =>
  settingEdits({ kind: 'switch', element: s, field: 'priority', table: 'vlanPriority' }, scope, value);

export const setPortCost = (kind: 'port' | 'bundle', port: Port | Bundle, scope: Scope, value: number | null): Edit[] =>
  settingEdits({ kind, element: port, field: 'cost', table: 'vlanCost' }, scope, value);

export const setPortPriority = (
  kind: 'port' | 'bundle',
  port: Port | Bundle,
  scope: Scope,
  value: number | null,
): Edit[] => settingEdits({ kind, element: port, field: 'priority', table: 'vlanPriority' }, scope, value);
