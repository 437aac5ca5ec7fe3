/** What other rooms use of editing. */
export { applyWhatFits } from './fit';
export type { Change } from './fit';
export { Macs, Names } from './names';
export { acceptFinding, checkNeighbours, switchCalled } from './neighbours';
export type { Finding, Reception } from './neighbours';
export { mergeByName } from './merge';
export { moveThings, oneMore } from './one-more';
export { partOf, partText, readPart } from './part';
export type { Chosen, Part } from './part';
export { pastePart } from './paste-part';
export { PATTERNS, drawPattern, planOf } from './patterns';
export type { PatternId } from './patterns';
export {
  carries,
  disagreement,
  disagreementSentence,
  paintVlan,
  portsOnWires,
  presence,
  renumberVlan,
  setNative,
  setVlans,
  tagging,
} from './vlans';
export type { Presence } from './vlans';
export { Wiring, freeVlan, portSettings } from './wiring';
export type { CableEnd, NewId } from './wiring';
export { missingVlans } from './missing-vlans';
