/** What other rooms use of protocols/mst. */
export {
  addPort,
  checkMigration,
  createBridge,
  hearBpdu,
  holdPort,
  setBridge,
  setPort,
  setPortsEnabled,
  settleAll,
  tickBridge,
} from './bridge';
export { receiveAgain } from './repeated-messages';
export type { BridgeSettings, PortSettings } from './settings';
export { Port, TreePort } from './variables';
export type { MachineRole, MstBridge } from './variables';
