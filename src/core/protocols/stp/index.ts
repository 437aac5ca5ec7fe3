/** What other rooms use of protocols/stp. */
export {
  addStpPort,
  createStpBridge,
  hearStpBpdu,
  nextStpTimer,
  setStpPort,
  setStpPortEnabled,
  setStpPriority,
  setStpTimers,
  wakeStpBridge,
} from './bridge';
export type { StpBridge, StpPortSettings, StpState } from './variables';
