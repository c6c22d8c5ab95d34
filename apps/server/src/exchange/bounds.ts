/** How long others are waited for, and how many may come at once. */

/** A connection that does not come about in this time is given up, ms. */
export const CONNECT_MS = 5000;
/** A connection on which nothing comes for so long is closed, ms. */
export const SILENCE_MS = 15_000;
/** Most connections at once, and of one address. */
const MOST_CONNECTIONS = 64;
const MOST_OF_ONE = 8;

/** Why a connection did not work, for people. */
export function whyNot(error: NodeJS.ErrnoException, name: string): string {
  switch (error.code) {
    case 'ECONNREFUSED':
      return `${name} does not listen where it says.`;
    case 'ECONNRESET':
    case 'EPIPE':
      return `${name} ended the connection.`;
    case 'EHOSTUNREACH':
    case 'ENETUNREACH':
    case 'ETIMEDOUT':
      return `${name} cannot be reached from this computer.`;
    default:
      return `The connection to ${name} failed: ${error.message}.`;
  }
}

/** Counts connections by address, so that one flood leaves room for the others. */
export class Doorkeeper {
  private readonly open = new Map<string, number>();
  private all = 0;

  /** True if one more may come in; then call {@link leave} when it ends. */
  admit(address: string): boolean {
    const own = this.open.get(address) ?? 0;
    if (own >= MOST_OF_ONE || this.all >= MOST_CONNECTIONS) return false;
    this.open.set(address, own + 1);
    this.all += 1;
    return true;
  }

  leave(address: string): void {
    const own = (this.open.get(address) ?? 1) - 1;
    if (own > 0) this.open.set(address, own);
    else this.open.delete(address);
    this.all -= 1;
  }
}
