/** What other rooms use of protocols/lacp. */
export { has, withBit } from './port';
export type { LacpPort } from './port';
export { runToRest } from './rest';
export { goesAlone } from './selection';
export { changeEnd, hear, lightEnd, nextTimer, startEnd, tick } from './system';
export type { EndSettings, LacpEnd, Sent } from './system';
