/** This computer as a station of MVR-xchange: it finds others, joins them, hears of their files and offers its own. */
import { randomUUID } from 'node:crypto';
import type { StationsReply } from '@taxiarch/core/whole/contract';
import { type InterfaceInfo, isNear } from '@taxiarch/core/network/ip';
import { type Commit, type Message, type Sighted, Station, type StationReply } from '@taxiarch/core/protocol/xchange';
import { ok, refuse, type Result } from '@taxiarch/core/base/result';
import { Beacon } from './beacon';
import { hostOthers, joinHost, type SocketMode } from './socketMode';
import { listen, say } from './tcpTalk';

export interface StationSetup {
  readonly stationId: string;
  readonly name: string;
  readonly group: string;
  readonly iface: InterfaceInfo;
  readonly mdnsPort: number;
}

/** Between two tries to join a station that did not answer, ms. */
const AGAIN_MS = 10_000;
/** A station that has not been heard of for so long is gone, ms: its records live for 120 s. */
const GONE_MS = 130_000;

const ANOTHER = 'A station of this id is known here at another address.';

function refusal(message: Message): StationReply {
  switch (message.type) {
    case 'join':
      return { message: { ...message, type: 'joinRet', ok: false, message: ANOTHER, commits: [] } };
    case 'commit':
      return { message: { type: 'commitRet', ok: false, message: ANOTHER } };
    default:
      return { message: { type: 'leaveRet', ok: false, message: ANOTHER } };
  }
}

/** Those of another group are not ours to join; one that names none is everybody’s. */
export const isOfGroup = (one: Pick<Sighted, 'group'>, { group }: Pick<StationSetup, 'group'>): boolean =>
  one.group === '' || one.group === group;

/** Whether one that was last heard of at `at` is gone at `now`, both in ms. */
export const isGone = (at: number, now: number): boolean => now - at > GONE_MS;

export class Stations {
  private readonly station: Station;
  private beacon: Beacon | undefined;
  private listening: { readonly port: number; readonly close: () => void } | undefined;
  private mode: SocketMode | undefined;
  private hosting = false;
  private trouble = '';
  private readonly troubles = new Map<string, { readonly why: string; readonly at: number }>();
  private readonly seenAt = new Map<string, number>();
  private readonly joining = new Set<string>();
  private fetching: { stationId: string; fileId: string; bytes: number; stop: AbortController } | undefined;
  private readonly lamps = new Map<string, number>();
  private forgetting: NodeJS.Timeout | undefined;
  private ended = false;

  /** `news` is told of files that are committed from now on. */
  constructor(
    private readonly setup: StationSetup,
    private readonly news: (name: string, commit: Commit) => void,
  ) {
    this.station = new Station({ stationId: setup.stationId, name: setup.name, provider: 'Taxiarch' });
  }

  async start(): Promise<void> {
    const { iface, name, group, stationId, mdnsPort } = this.setup;
    this.listening = await listen(iface.address, (message, from) =>
      this.isAnother(message, from) ? refusal(message) : this.hear(message, from, 0),
    );
    if (this.ended) return this.listening.close();
    const { port } = this.listening;
    const failed = (error: Error) => {
      this.trouble = `Stations cannot be found by this interface: ${error.message}.`;
    };
    this.forgetting = setInterval(() => this.forgetGone(), AGAIN_MS);
    this.beacon = new Beacon(
      { name, stationId, group, address: iface.address, port },
      mdnsPort,
      (one) => this.sighted(one),
      failed,
    );
  }

  /** It speaks for a station that is known at another address. */
  private isAnother(message: Message, from: string): boolean {
    const known = 'stationId' in message ? this.station.find(message.stationId) : undefined;
    return known !== undefined && known.address !== from;
  }

  private hear(message: Message, address: string, port: number): StationReply {
    if ('stationId' in message) this.seenAt.set(message.stationId, Date.now());
    const { fresh = [], ...reply } = this.station.hear(message, { address, port }, Date.now());
    // What stood there when it was joined is no news.
    if (message.type === 'commit')
      for (const commit of fresh) this.news(this.station.find(commit.stationId)?.name ?? '', commit);
    return reply;
  }

  /** Whoever has not been heard of for too long is gone; a host tells of its guests itself. */
  private forgetGone(): void {
    if (this.mode) return;
    for (const [stationId, at] of this.seenAt)
      if (isGone(at, Date.now())) {
        this.station.gone(stationId);
        this.seenAt.delete(stationId);
      }
  }

  private sighted(one: Sighted): void {
    if (!isOfGroup(one, this.setup)) return;
    if (one.ttl === 0) return this.station.gone(one.stationId);
    if (!isNear(one.address, this.setup.iface)) return;
    const { stationId, name, address, port } = one;
    this.seenAt.set(stationId, Date.now());
    this.station.found({ stationId, name, provider: '', address, port });
    if (!this.mode) void this.join(stationId);
  }

  private async join(stationId: string): Promise<void> {
    const other = this.station.find(stationId);
    const failed = this.troubles.get(stationId);
    if (!other || other.joined || this.joining.has(stationId)) return;
    if (failed && Date.now() - failed.at < AGAIN_MS) return;
    this.joining.add(stationId);
    const answer = await say(other, this.setup.iface.address, this.station.join());
    this.joining.delete(stationId);
    if (this.ended) return;
    const message = answer.ok && 'message' in answer.value ? answer.value.message : undefined;
    const why = !answer.ok
      ? answer.why
      : message?.type !== 'joinRet'
        ? `${other.name} answered with something else.`
        : message.ok
          ? ''
          : `${other.name} refused: ${message.message || 'it gives no reason'}.`;
    if (why === '') {
      this.troubles.delete(stationId);
      this.hear(message!, other.address, other.port);
    } else this.troubles.set(stationId, { why, at: Date.now() });
  }

  /** Fetches an offered file; one at a time. */
  async fetch(
    stationId: string,
    fileId: string,
  ): Promise<Result<{ readonly bytes: Uint8Array; readonly name: string }>> {
    const other = this.station.find(stationId);
    if (!other) return refuse('not-found', 'This station is not here any more.');
    if (this.fetching) return refuse('taken', 'Another file is being fetched just now.');
    const commit = other.commits.find((one) => one.fileId === fileId);
    const under = { stationId, fileId, bytes: 0, stop: new AbortController() };
    this.fetching = under;
    const message: Message = { type: 'request', fileId, fromIds: [stationId] };
    const answer = await (this.mode
      ? this.mode.request(message, stationId, other.name)
      : say(other, this.setup.iface.address, message, (bytes) => (under.bytes = bytes), under.stop.signal));
    this.fetching = undefined;
    if (!answer.ok) return answer;
    if ('file' in answer.value)
      return ok({
        bytes: answer.value.file,
        name: `${other.name}, ${commit?.comment || commit?.fileName || 'its rig'}`,
      });
    const said = answer.value.message;
    return refuse(
      'not-possible',
      `${other.name} does not give the file: ${('message' in said && said.message) || 'it gives no reason'}.`,
    );
  }

  cancelFetch(): void {
    this.fetching?.stop.abort();
  }

  /** Offers a file to the others; returns the names of those who could not be told, each with its reason. */
  async commit(bytes: Uint8Array, comment: string, fileName: string, forIds: readonly string[], lamps: number) {
    const fileId = randomUUID();
    const message = this.station.offer({ fileId, forIds, comment, fileName }, bytes, Date.now());
    this.lamps.set(fileId, lamps);
    if (this.mode) {
      this.mode.tell(message);
      return { told: this.station.list().length, not: [] };
    }
    const to = this.station.list().filter(({ stationId }) => forIds.length === 0 || forIds.includes(stationId));
    const answers = await Promise.all(
      to.map(async (one) => {
        const answer = await say(one, this.setup.iface.address, message);
        if (!answer.ok) return answer.why;
        const said = 'message' in answer.value ? answer.value.message : undefined;
        return said?.type === 'commitRet' && said.ok
          ? ''
          : `${one.name} refused: ${(said && 'message' in said && said.message) || 'it gives no reason'}.`;
      }),
    );
    const not = answers.filter((why) => why !== '');
    return { told: to.length - not.length, not };
  }

  /** Goes to a host of the WebSocket mode, hosts the others (`host`), or goes back to the TCP mode (empty). */
  async move(to: string): Promise<Result<string>> {
    this.leaveMode();
    this.station.asked = undefined;
    if (to === '') return ok('');
    const events = {
      hear: (message: Message, from: string) => this.hear(message, from, 0),
      lost: (why: string) => {
        this.mode = undefined;
        this.trouble = `${why} Stations are found by the TCP mode again.`;
      },
    };
    if (to === 'host') {
      this.mode = await hostOthers(this.setup.iface.address, events);
      this.hosting = true;
      const told: Message = { type: 'newHost', group: '', url: this.mode.url };
      await Promise.all(this.station.list().map((one) => say(one, this.setup.iface.address, told)));
      return ok(this.mode.url);
    }
    const joined = await joinHost(to, () => this.station.join(), events);
    if (!joined.ok) return joined;
    this.mode = joined.value;
    return ok(to);
  }

  private leaveMode(): void {
    this.mode?.tell({ type: 'leave', stationId: this.setup.stationId });
    this.mode?.close();
    this.mode = undefined;
    this.hosting = false;
    this.trouble = '';
  }

  report(): StationsReply {
    const now = Date.now();
    return {
      mode: this.mode ? (this.hosting ? 'host' : 'guest') : 'tcp',
      url: this.mode?.url ?? '',
      trouble: this.trouble,
      address: this.setup.iface.address,
      port: this.listening?.port ?? 0,
      asked: this.station.asked ?? null,
      list: this.station.list().map(({ stationId, name, provider, address, joined, commits }) => ({
        stationId,
        name,
        provider,
        address,
        joined,
        heardAt: this.seenAt.get(stationId) ?? now,
        trouble: this.troubles.get(stationId)?.why ?? '',
        commits: commits.map(({ fileId, comment, fileName, size, at }) => ({ fileId, comment, fileName, size, at })),
      })),
      own: this.station.own().map(({ commit: { fileId, comment, size }, at }) => ({
        fileId,
        comment,
        size,
        at,
        lamps: this.lamps.get(fileId) ?? 0,
      })),
      fetching: this.fetching
        ? { stationId: this.fetching.stationId, fileId: this.fetching.fileId, bytes: this.fetching.bytes }
        : null,
    };
  }

  /** Takes leave of all and ends. */
  async end(): Promise<void> {
    this.ended = true;
    clearInterval(this.forgetting);
    const leave: Message = { type: 'leave', stationId: this.setup.stationId };
    const joined = this.mode ? [] : this.station.list().filter((one) => one.joined);
    await Promise.all([...joined.map((one) => say(one, this.setup.iface.address, leave)), this.beacon?.end()]);
    this.leaveMode();
    this.fetching?.stop.abort();
    this.listening?.close();
  }
}
