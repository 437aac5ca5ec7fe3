/** What other rooms use of protocols/stp. */
export { addStpPort, createStpBridge, setStpPort, setStpPortEnabled, setStpPriority, setStpTimers } from './bridge';
export { rootGuarded } from './procedures';
export { hearStpBpdu } from './receive';
export { nextStpTimer, wakeStpBridge } from './timers';
export type { StpBridge, StpPortSettings, StpState } from './variables';
