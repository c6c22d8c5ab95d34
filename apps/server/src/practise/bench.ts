/** The demo's bench of stand-ins, reached over HTTP on this computer. */
import type { StandIn } from '@taxiarch/core/whole/contract';
import type { Hand } from '@taxiarch/core/truth/fault';
import { ProblemError } from '../problemError';

/** They are on this computer: whoever is this late is held up with it, or ended. */
const LONGEST_MS = 15_000;

export class Bench {
  /** `address` of the stand-ins' bench; undefined when there are none */
  constructor(private readonly address: string | undefined) {}

  get isThere(): boolean {
    return this.address !== undefined;
  }

  private async ask(path: string, body?: unknown): Promise<readonly StandIn[]> {
    if (this.address === undefined)
      throw new ProblemError('not-here', 'There are no stand-ins: this is a real network.');
    let response: Response;
    try {
      response = await fetch(`${this.address}/${path}`, {
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

  /** None on a real network */
  readonly boxes = async (): Promise<readonly StandIn[]> => (this.address === undefined ? [] : this.ask('boxes'));
  readonly handle = (hand: object): Promise<readonly StandIn[]> => this.ask('handle', hand);

  /** What a stand-in adapter at an address finds on its line; undefined where there is none. */
  async adapter(host: string): Promise<{ readonly values: readonly number[]; readonly says: string } | undefined> {
    if (this.address === undefined || !host.startsWith('127.')) return undefined;
    try {
      const panel = Object.assign(new URL(this.address), { hostname: host, pathname: '/values' });
      const response = await fetch(panel, { signal: AbortSignal.timeout(LONGEST_MS) });
      return (await response.json()) as { values: number[]; says: string };
    } catch {
      return undefined;
    }
  }

  /** All as they were shipped. */
  reset(): Promise<readonly StandIn[]> {
    return this.handle({ id: 'all', reset: true });
  }

  async plant(hands: readonly Hand[]): Promise<void> {
    for (const hand of hands) await this.handle(hand);
  }
}
