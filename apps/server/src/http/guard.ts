/** Who may come in: only requests meant for this server, and from away only those that have paired. */
import { createHash, randomBytes, randomInt, timingSafeEqual } from 'node:crypto';
import type { IncomingMessage } from 'node:http';
import { listInterfaces } from '../bridge/interfaces';

/** Letters and digits that are not mistaken for one another. */
const CODE_LETTERS = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789';
const CODE_LENGTH = 8;
const TRIES = 5;
const TRIES_WINDOW_MS = 60_000;
const COOKIE = 'taxiarch';
/** Most addresses whose tries are remembered; the oldest are forgotten first. */
const MOST_ADDRESSES = 1000;

const makeCode = (): string =>
  Array.from({ length: CODE_LENGTH }, () => CODE_LETTERS[randomInt(CODE_LETTERS.length)]).join('');

/** Compares in a time that does not depend on where they differ. */
function same(one: string, other: string): boolean {
  const digest = (text: string) => createHash('sha256').update(text).digest();
  return timingSafeEqual(digest(one), digest(other));
}

export class Guard {
  /** The pairing code to be shown to the person; undefined if the server is reachable from this computer only. */
  readonly code: string | undefined;
  private readonly passes = new Set<string>();
  private readonly tries = new Map<string, number[]>();

  /** `open`: the server can be reached from other computers, so clients must pair. */
  constructor(
    private readonly port: number,
    open: boolean,
  ) {
    this.code = open ? makeCode() : undefined;
  }

  /** The names under which this server may be addressed. */
  private hosts(): string[] {
    const own = listInterfaces().map(({ address }) => address);
    const names = this.code === undefined ? ['127.0.0.1', 'localhost'] : ['127.0.0.1', 'localhost', ...own];
    return names.flatMap((name) => (this.port === 80 ? [name, `${name}:80`] : [`${name}:${this.port}`]));
  }

  /** A sentence that says why a request is not for this server, or nothing. */
  refuse({ headers }: Pick<IncomingMessage, 'headers'>): string | undefined {
    const hosts = this.hosts();
    if (!headers.host || !hosts.includes(headers.host.toLowerCase()))
      return 'This request names another host. Open Taxiarch by the address that it printed when it started.';
    if (headers.origin !== undefined && !hosts.some((host) => headers.origin === `http://${host}`))
      return 'This request comes from a page of another origin and is refused.';
    return undefined;
  }

  /** Whether a request may see more than the pairing page. */
  admits({ headers }: Pick<IncomingMessage, 'headers'>): boolean {
    if (this.code === undefined) return true;
    const cookies = (headers.cookie ?? '').split(';').map((cookie) => cookie.trim());
    return cookies.some(
      (cookie) => cookie.startsWith(`${COOKIE}=`) && this.passes.has(cookie.slice(COOKIE.length + 1)),
    );
  }

  /**
   * Tries a code from an address. Returns the cookie to be set, or a sentence.
   * Each address has five tries a minute.
   */
  pair(attempt: string, address: string, now: number): { cookie: string } | { refused: string; wait: boolean } {
    const recent = (this.tries.get(address) ?? []).filter((at) => now - at < TRIES_WINDOW_MS);
    if (recent.length >= TRIES) return { refused: 'Too many tries. Wait a minute, then try again.', wait: true };
    this.tries.delete(address);
    this.tries.set(address, [...recent, now]);
    if (this.tries.size > MOST_ADDRESSES) this.tries.delete(this.tries.keys().next().value!);
    const typed = attempt.toUpperCase().replace(/[^A-Z0-9]/g, '');
    if (this.code === undefined || !same(typed, this.code))
      return { refused: 'That is not the code. It stands in the window where Taxiarch was started.', wait: false };
    this.tries.delete(address);
    const pass = randomBytes(24).toString('base64url');
    this.passes.add(pass);
    return { cookie: `${COOKIE}=${pass}; Path=/; HttpOnly; SameSite=Strict; Max-Age=1209600` };
  }
}
