/** What other rooms use of standard. */
export {
  ACTIVE_MEMBERS,
  BRIDGE_PRIORITIES,
  BRIDGE_PRIORITY,
  COMMON_SPEEDS,
  INSTANCE_ID,
  LACP_KEY,
  LACP_PRIORITY,
  MAX_HOPS,
  MOST_INSTANCES,
  PAIR_DOMAIN,
  PAIR_PORT_OFFSET,
  PORT_NUMBER,
  PORT_PRIORITIES,
  PORT_PRIORITY,
  REGION_NAME_OCTETS,
  REVISION,
  TIMERS,
  VLAN_ID,
  nearestLegal,
} from './constants';
export { COST_RANGE, defaultPathCost } from './cost';
export type { CostScale } from './cost';
export { timersForDiameter } from './diameter-timers';
export { canonicalMac, isIndividualMac, macToNumber, numberToMac } from './mac';
export { fewestMembers, operationalKey, speedsByUse } from './speeds';
export { COMMON_TREE, instanceTreeId, parseTreeId, vlanOfTreeId, vlanTreeId } from './tree-id';
export {
  compareBridgeId,
  comparePriorityVector,
  decidingPart,
  bridgeIdWords,
  priorityWords,
  formatBridgeId,
  shortBridgeId,
  systemIdWords,
  formatPortId,
  portIdentifier,
  splitPortId,
} from './vectors';
export type { BridgeId, PriorityVector, VectorPart } from './vectors';
export { formatVlanRanges, parseVlanRanges, vlanMembership } from './vlan-set';
export { MESSAGE_PARTS, compareVectors, isSuperior } from './message-vector';
export type { HeldVector, Vector } from './message-vector';
export { MIGRATE_TIME, OCTET_SECONDS, SECOND } from './time';
export { ago, count, grouped, lasting, more, rateWords, seconds, someNames } from './format';
