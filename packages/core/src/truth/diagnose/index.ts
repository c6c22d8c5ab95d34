/** Why something does not work: causes as deviations of the world, judged by what was heard, said and seen. */
export { why } from './why';
export { standing } from './standing';
export { forecastTake } from './forecast';
export { forecastPush } from './forecastPush';
export { CAUSES } from './causes';
export { Paths } from './sightings';
export { worldAsHeard } from './worldNow';
export type { DiagnosisHeard } from './heard';
