/** Why something does not work: causes as deviations of the world, judged by what was heard, said and seen. */
export * from './why';
export * from './standing';
export { CAUSES } from './causes';
export type { Cause, Deviation, Scene } from './cause';
export type { DiagnosisHeard } from './heard';
