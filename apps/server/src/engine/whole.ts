import type { EngineParts } from './parts';
import type { Reports } from './reports';

/** The parts of the engine and what it reports of them. */
export interface EngineWhole extends EngineParts {
  readonly reports: Reports;
}
