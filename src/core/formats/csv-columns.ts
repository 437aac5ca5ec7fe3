/** Columns of the tables that designs are imported from and exported to. */
import type { ColumnRule } from './table';

export const SWITCH_COLUMNS: ColumnRule = {
  required: ['switch', 'mac'],
  optional: ['priority', 'tier', 'protocol', 'cost_scale'],
};
export const LINK_COLUMNS: ColumnRule = {
  required: ['a_switch', 'a_port', 'b_switch', 'b_port', 'speed_mbps'],
  optional: [
    'a_port_number',
    'b_port_number',
    'a_cost',
    'b_cost',
    'a_port_priority',
    'b_port_priority',
    'vlans',
    'native_vlan',
    'segment',
  ],
};
export const VLAN_COLUMNS: ColumnRule = { required: ['vlan'], optional: ['name'] };
