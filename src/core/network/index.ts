/** What other rooms use of network. */
export { bundleCostRate } from './bundle-rate';
export { bundleRate, formedBundles, heldMembers, lonelyBundles } from './bundles/formed';
export { negotiate } from './bundles/negotiation';
export type { MemberState, PlannedEnd } from './bundles/negotiation';
export { pairReport } from './bundles/pair-report';
export type { PairReport } from './bundles/pair-report';
export { actingDesign, actingThrough, isPeerPort, sharedWith } from './bundles/pairs';
export type { PairState } from './bundles/pairs';
export { planned, portsOfHost } from './bundles/negotiating-ends';
export { OUTCOME_WORDS, bundleVerdicts, verdictOf } from './bundles/verdict';
export type { BundleVerdict, MemberVerdict } from './bundles/verdict';
export {
  forEachNeighbour,
  lanGraph,
  lansOf,
  meetsOthers,
  peersOf,
  portsOfBridge,
  portsOnLan,
  upstream,
  walkFrom,
} from './lan-graph';
export type { LanGraph, Step } from './lan-graph';
export { bundleLacpEnd, hostLacpEnd, lacpIdentity, minimumAt } from './lacp-ends';
export { bundleNotes, notesAt } from './setting-notes';
export { isHalfDuplex, rateAt } from './link-state';
export { isMixed, mixtureOf } from './mixed-modes';
export { compareConfigs, differenceSentences } from './regions/compare';
export { configurationDigest, mstConfigOf, mstSwitches, regionMap, regionOf } from './regions/config';
export type { InstanceMap } from './regions/config';
export { moveVlans, moveVlansAt, removeInstance } from './regions/edit';
export { systemIdExtension, treesOf } from './tree-list';
export type { Tree } from './tree-list';
export { leadsToSwitch, vlanClasses } from './vlan-classes';
