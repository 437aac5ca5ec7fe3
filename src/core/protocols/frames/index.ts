/** What other rooms use of protocols/frames. */
export {
  BPDU_FIELDS,
  FLAG,
  MSTI_FIELDS,
  MST_FIELDS,
  NOTIFICATION,
  configurationOctets,
  decodeBpdu,
  encodeBpdu,
  extensionIn,
  flagRole,
  flagsIn,
  inVlan,
  roleFlags,
  sameButFlags,
  tellsChangeOf,
} from './bpdu';
export type { Bpdu, FlagRole, MstPart, MstiPart } from './bpdu';
export { addressesOf, bpduEnvelope, bpduFrame, openEnvelope, slowFrame, vlanBpduFrame } from './envelope';
export type { Envelope } from './envelope';
export { sameOctets } from './fields';
export { decodeOampdu, encodeOampdu } from './oampdu';
export { LACP_STATE, decodeLacpdu, encodeLacpdu, stateWords } from './lacpdu';
export type { LacpInfo, LacpStateBit, Lacpdu } from './lacpdu';
