/** A request that cannot be: thrown wherever it is found out, and answered as a problem document. */
import type { Problem, ProblemName } from '@taxiarch/core/whole/contract';

export class ProblemError extends Error {
  constructor(
    readonly problem: ProblemName,
    detail: string,
    readonly more: Partial<Problem> = {},
  ) {
    super(detail);
  }
}
