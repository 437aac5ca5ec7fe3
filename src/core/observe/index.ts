/** What other rooms use of observe. */
export { checkObserved } from './check';
export { compareWithDesign } from './compare/compare';
export type { Difference } from './compare/difference';
export { drawObserved } from './draw/draw';
export type { Observation } from './model';
export { SCALARS, WALKED } from './snmp/objects';
export { readSnmp } from './snmp/read';
export type { SnmpRow, SnmpValue } from './snmp/tree';
export { readWalkText } from './snmp/walk-text';
export { agentAnswers } from './stand-in/agent-answers';
export { AnswerBook } from './stand-in/answers';
export type { Answer, Syntax } from './stand-in/answers';
export { unite } from './unite/unite';
export { asBuilt } from './as-built';
export { isCapture } from './capture/packets';
export { captureReader, readObservedFiles } from './files/read';
export type { ObservedFile } from './files/read';
