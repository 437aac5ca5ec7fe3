/** What other rooms use of design. */
export { faceBundle, freePorts, nextPort, replugMember } from './bundle-ends';
export { addMember, bundleLinks, joinable, makePair, parallelLinks, removeMember, splitBundles } from './bundling';
export { bundleOffers } from './bundle-offers';
export type { BundleOffer } from './bundle-offers';
export type { BundleEdits } from './bundling';
export { cableEdit, designsOver, editsOf, everNamed } from './designs-over-script';
export { differenceBetween } from './difference';
export { differenceWords, editListWords, editWords, settingName, settingWords, workIn, workWords } from './edit-words';
export { addElement, applyEdits, editSchema, editsCollide, setField } from './edits';
export type { Edit } from './edits';
export { faultsOf, formatPath } from './fault';
export type { Fault } from './fault';
export { NO_HISTORY, advance, historyOf, topsAfter } from './history';
export type { History, HistoryEntry, StackTops } from './history';
export { DOCUMENT_LIMITS, jsonFault } from './json-limits';
export { designJsonSchema } from './json-schema';
export { jsonTextFault, scanJson } from './json-text';
export {
  aboutName,
  bundleAt,
  bundleById,
  bundlesOf,
  endOwner,
  farEnd,
  groupBy,
  hostById,
  linkAt,
  linkById,
  linkSpeed,
  linkTypeOf,
  linksOfHost,
  noteById,
  pairOf,
  placeName,
  portById,
  portLabel,
  portsOf,
  segmentAt,
  segmentById,
  switchById,
  vlansAt,
} from './look-ups';
export { readDesign, readDesignText } from './read';
export { dissolvePair, removeAll, removeSwitch } from './removal';
export { integrityFaults } from './rules/integrity';
export { timersFit, timersOf, usualHelloSpread } from './rules/script';
export type { TimersInForce } from './rules/script';
export {
  COLLECTIONS,
  DESIGN_FORMAT,
  DESIGN_VERSION,
  ACTIONS,
  AGE_STEPS,
  LINK_TYPES,
  STORM_ACTIONS,
  MODES,
  emptyDesign,
  emptyLists,
  hostSchema,
  isClassicMode,
  isPerVlan,
  linkSchema,
  modeOf,
  portSchema,
  regionSchema,
  segmentSchema,
  switchSchema,
  vlanSchema,
} from './schema';
export { TIERS } from './values';
export { HASH_FIELDS, bundleSchema, pairSchema } from './bundle-schema';
export type { Design, Host, Kind, Link, LinkEnd, Mode, Port, Region, Segment, Switch, Vlan } from './schema';
export type { Bundle, SwitchPair } from './bundle-schema';
export { isAvailability } from './goal-schema';
export type { AvailabilityGoal, Demand, Goal, PlaceRef, PresentGoal } from './goal-schema';
export type { Acceptance, CableCost, CablePlace } from './review-schema';
export { NOTE_FORMS, NOTE_LENGTH } from './note-schema';
export type { Note, NoteForm } from './note-schema';
export { LOST_FRAMES, eventSchema, scriptSchema } from './script-schema';
export type { LostFrames, Probe, Script, ScriptEvent } from './script-schema';
export {
  costInForce,
  portPriorityInForce,
  priorityInForce,
  scopeAt,
  setBridgePriority,
  setPortCost,
  setPortPriority,
} from './settings';
export type { InForce, Scope, TreeKey } from './settings';
export { untaggedWords } from './untagged-words';
export { filterOf, hasBpduGuard, hasSilenceGuard, isFiltered } from './guards';
export type { FilterInForce } from './guards';
export type { KeptReading } from './reading-schema';
export { observedNetworkSchema } from './observed-schema';
export type { Certainty, ObservedEnd, ObservedNetwork, ObservedQuestion, ObservedSwitch } from './observed-schema';
