/**
 * Bridges behind one agent. BRIDGE-MIB has room for one tree; a device that runs several lists each as a logical entity, with
 * the community or the context in which its agent answers for it (RFC 6933 2.1.2, entLogicalTable).
 */
import { COLUMNS, LOGICAL_BRIDGE } from './objects';
import { SnmpTree } from './tree';
import type { SnmpRow } from './tree';

export interface LogicalBridge {
  readonly name: string;
  /** How to ask with SNMPv2c, and with v3; null where the agent does not say. Communities are secrets. */
  readonly community: string | null;
  readonly context: string | null;
}

/** The bridges that an agent lists; none where it is one alone. */
export function logicalBridges(rows: Iterable<SnmpRow>): LogicalBridge[] {
  const own = [...rows].filter(({ oid }) => oid.startsWith(`${COLUMNS.entLogicalType.replace(/\d+$/, '')}`));
  const tree = new SnmpTree(own);
  return tree
    .rows('entLogicalType')
    .filter((index) => tree.text('entLogicalType', index) === LOGICAL_BRIDGE)
    .map((index) => ({
      name: tree.text('entLogicalDescr', index) || index,
      community: tree.text('entLogicalCommunity', index) || null,
      context: tree.text('entLogicalContextName', index) || null,
    }));
}
