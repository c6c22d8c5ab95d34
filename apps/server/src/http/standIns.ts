/** The demo's bench of stand-ins, passed on to whoever looks at their page. */
import type { StandIn } from '@taxiarch/core/contract';
import type { Handlers } from './api';
import { ProblemError } from './problem';

const LONGEST_MS = 4000;

/** `bench`: address of the stand-ins' bench; undefined when there are none. */
export function standInHandlers(bench: string | undefined): Pick<Handlers, 'readStandIns' | 'handleStandIn'> {
  async function ask(path: string, body?: unknown): Promise<readonly StandIn[]> {
    if (bench === undefined) throw new ProblemError('not-here', 'There are no stand-ins: this is a real network.');
    let response: Response;
    try {
      response = await fetch(`${bench}/${path}`, {
        signal: AbortSignal.timeout(LONGEST_MS),
        ...(body !== undefined && { method: 'POST', body: JSON.stringify(body) }),
      });
    } catch {
      throw new ProblemError('not-ready', 'The stand-ins do not answer. They were started with the demo show only.');
    }
    const answer: unknown = await response.json();
    if (!response.ok) throw new ProblemError('not-understood', (answer as { why: string }).why);
    return answer as readonly StandIn[];
  }

  return { readStandIns: () => ask('boxes'), handleStandIn: ({ body }) => ask('handle', body) };
}
