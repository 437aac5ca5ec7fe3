/** What a BPDU says to a tree, as a vector (rcvMsgs of 802.1Q-2018 13.29). */
import type { Bpdu, MstPart, MstiPart } from './frames';
import type { Vector } from '../standard';

/** To the CIST. A receiver that knows no regions reads no instance part: the regional root is the bridge to it (14.5). */
export const cistMessage = (bpdu: Bpdu, mst: MstPart | undefined): Vector => ({
  rootPriority: bpdu.rootPriority,
  rootMac: bpdu.rootMac,
  externalCost: bpdu.rootPathCost,
  regionalPriority: bpdu.bridgePriority,
  regionalMac: bpdu.bridgeMac,
  internalCost: mst?.internalCost ?? 0,
  bridgePriority: mst?.bridgePriority ?? bpdu.bridgePriority,
  bridgeMac: mst?.bridgeMac ?? bpdu.bridgeMac,
  port: bpdu.port,
});

/** To an instance; its MSTID and the number of the port are the same for all. */
export const mstiMessage = (bpdu: Bpdu, mst: MstPart, part: MstiPart): Vector => ({
  rootPriority: 0,
  rootMac: 0,
  externalCost: 0,
  regionalPriority: part.regionalPriority,
  regionalMac: part.regionalMac,
  internalCost: part.internalCost,
  bridgePriority: (part.bridgePriority << 8) | (part.regionalPriority & 0xfff),
  bridgeMac: mst.bridgeMac,
  port: (part.portPriority << 8) | (bpdu.port & 0xfff),
});
