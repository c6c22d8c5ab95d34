/**
 * A station of MVR-xchange, without its sockets: what it knows of others, what it offers, and what it answers.
 * Nothing that another station says is carried out; it is kept in mind until a person decides.
 */
import { MOST_COMMITS, MOST_STATIONS } from './constants';
import type { Commit, Message, StationName } from './messages';

/** Another station, as it said. */
export interface OtherStation extends StationName {
  readonly address: string;
  readonly port: number;
  /** It answered when we joined, or joined us */
  readonly joined: boolean;
  /** Oldest first */
  readonly commits: readonly (Commit & { readonly at: number })[];
}

/** A file of our own that others may have. */
export interface Offer {
  readonly commit: Commit;
  readonly bytes: Uint8Array;
  /** When it was committed, ms */
  readonly at: number;
}

export interface StationReply {
  readonly message?: Message;
  readonly file?: Uint8Array;
}

/** Most files of our own that are kept at hand for others. */
const MOST_OFFERS = 5;

export class Station {
  private readonly others = new Map<string, OtherStation>();
  private readonly offers: Offer[] = [];
  /** Somebody asks all to go elsewhere; a person decides. */
  asked: { readonly from: string; readonly group: string; readonly url: string } | undefined;

  constructor(readonly me: StationName) {}

  list(): readonly OtherStation[] {
    return [...this.others.values()];
  }

  own(): readonly Offer[] {
    return this.offers;
  }

  find(stationId: string): OtherStation | undefined {
    return this.others.get(stationId);
  }

  join(): Message {
    return { type: 'join', ...this.me, commits: this.offers.map(({ commit }) => commit) };
  }

  /** Keeps a file at hand; returns the message that tells of it. */
  offer(file: Omit<Commit, 'stationId' | 'size'>, bytes: Uint8Array, at: number): Message {
    const commit = { ...file, stationId: this.me.stationId, size: bytes.length };
    this.offers.push({ commit, bytes, at });
    if (this.offers.length > MOST_OFFERS) this.offers.shift();
    return { type: 'commit', ...commit };
  }

  /** A station was found, or said where it is; what is known of it besides stays. */
  found(station: StationName & { readonly address: string; readonly port: number }): void {
    if (station.stationId === this.me.stationId) return;
    const known = this.others.get(station.stationId);
    if (!known && this.others.size >= MOST_STATIONS) return;
    // Where it listens otherwise it was begun anew, and knows nobody yet.
    const moved = known !== undefined && (known.port !== station.port || known.address !== station.address);
    this.others.set(station.stationId, {
      ...station,
      name: station.name || (known?.name ?? ''),
      provider: station.provider || (known?.provider ?? ''),
      joined: (known?.joined ?? false) && !moved,
      commits: known?.commits ?? [],
    });
  }

  gone(stationId: string): void {
    this.others.delete(stationId);
  }

  private change(stationId: string, change: Partial<OtherStation>): void {
    const known = this.others.get(stationId);
    if (known) this.others.set(stationId, { ...known, ...change });
  }

  private learn(commits: readonly Commit[], at: number): Commit[] {
    const fresh: Commit[] = [];
    for (const commit of commits) {
      const known = this.others.get(commit.stationId);
      if (!known || !this.isForUs(commit)) continue;
      if (!known.commits.some(({ fileId }) => fileId === commit.fileId)) fresh.push(commit);
      const others = known.commits.filter(({ fileId }) => fileId !== commit.fileId);
      const first = known.commits.find(({ fileId }) => fileId === commit.fileId)?.at ?? at;
      this.change(commit.stationId, { commits: [...others, { ...commit, at: first }].slice(-MOST_COMMITS) });
    }
    return fresh;
  }

  private isForUs = ({ forIds }: Commit): boolean => forIds.length === 0 || forIds.includes(this.me.stationId);

  /**
   * Takes in what another station said; `from` is where it was said (its listening port where that is known, else 0).
   * Returns the answer, and what it offers that was not offered before.
   */
  hear(
    message: Message,
    from: { readonly address: string; readonly port: number },
    at: number,
  ): StationReply & { readonly fresh?: readonly Commit[] } {
    switch (message.type) {
      case 'join':
      case 'joinRet': {
        if (message.type === 'joinRet' && !message.ok) return {};
        const { stationId, name, provider } = message;
        const known = this.others.get(stationId);
        const where = from.port === 0 && known ? { address: known.address, port: known.port } : from;
        this.found({ stationId, name, provider, ...where });
        this.change(stationId, { joined: true });
        const fresh = this.learn(message.commits, at);
        if (message.type === 'joinRet') return { fresh };
        const { commits } = this.join() as Extract<Message, { type: 'join' }>;
        return { message: { type: 'joinRet', ok: true, message: '', ...this.me, commits }, fresh };
      }
      case 'leave':
        this.gone(message.stationId);
        return { message: { type: 'leaveRet', ok: true, message: '' } };
      case 'commit': {
        if (!this.others.has(message.stationId))
          return { message: { type: 'commitRet', ok: false, message: 'Join first: this station is not known here.' } };
        return { message: { type: 'commitRet', ok: true, message: '' }, fresh: this.learn([message], at) };
      }
      case 'request': {
        const offer =
          message.fileId === ''
            ? this.offers.at(-1)
            : this.offers.find(({ commit }) => commit.fileId === message.fileId);
        if (offer) return { file: offer.bytes };
        const why = message.fileId === '' ? 'No file is offered here.' : 'This file is not offered here.';
        return { message: { type: 'requestRet', ok: false, message: why } };
      }
      case 'newHost':
        this.asked = { from: from.address, group: message.group, url: message.url };
        return {
          message: { type: 'newHostRet', ok: false, message: 'A person here decides whether to follow.' },
        };
      default:
        return {};
    }
  }
}
