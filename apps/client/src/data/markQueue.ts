/**
 * Marks on their way to the server. Each is on this phone's own disk before it counts as made, and goes out in the order
 * in which it was made; it is forgotten here once the server has it. Closed pages and torn connections lose none, and
 * by its id each is written once, however often it is sent.
 */
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { GivenMark } from '@taxiarch/core/whole/contract';
import { itemKey } from '@taxiarch/core/proving/walk';
import { Refusal, call } from './api';
import { Followed, useFollowed } from './emitter';
import { feed } from './feed';

export interface WaitingMark {
  readonly walkId: string;
  readonly mark: GivenMark;
  readonly photo: Blob | null;
  /** Why the server refused it; empty while it waits */
  readonly refused: string;
}
interface Numbered extends WaitingMark {
  readonly order: number;
}

interface Kept extends DBSchema {
  marks: { key: number; value: WaitingMark };
}

/** What a mark is sent with. */
export interface Sending {
  sendMarks(walkId: string, marks: readonly GivenMark[]): Promise<unknown>;
  sendPhoto(photo: Blob): Promise<string>;
}

const AGAIN_MS = 2000;
const SOON_MS = 80;
const AT_ONCE = 100;

export class MarkQueue {
  /** All that are not with the server yet, in their order */
  readonly waiting = new Followed<readonly Numbered[]>([]);
  private readonly opened: Promise<IDBPDatabase<Kept>>;
  private flushing: Promise<void> | undefined;
  private again: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly sending: Sending,
    name = 'taxiarch',
  ) {
    this.opened = openDB<Kept>(name, 1, {
      upgrade: (db) => void db.createObjectStore('marks', { autoIncrement: true }),
    });
    // A phone that keeps nothing says so at each mark.
    this.begin().catch(() => undefined);
  }

  /** What was left from before is read, and sent. */
  private async begin(): Promise<void> {
    const db = await this.opened;
    const [keys, values] = await Promise.all([db.getAllKeys('marks'), db.getAll('marks')]);
    const known = new Set(this.waiting.read().map(({ order }) => order));
    const left = values.flatMap((one, i) => (known.has(keys[i]!) ? [] : [{ ...one, order: keys[i]! }]));
    if (left.length > 0) this.waiting.set([...left, ...this.waiting.read()].sort((a, b) => a.order - b.order));
    await this.flush();
  }

  /** Resolves once it is safe on this phone. */
  async add(walkId: string, mark: GivenMark, photo: Blob | null = null): Promise<void> {
    const one: WaitingMark = { walkId, mark, photo, refused: '' };
    const order = await (await this.opened).add('marks', one);
    this.waiting.set([...this.waiting.read(), { ...one, order }]);
    // The next lamp is asked for meanwhile, and goes first.
    clearTimeout(this.again);
    this.again = setTimeout(() => void this.flush(), SOON_MS);
  }

  /** Sends what waits; one sending at a time. */
  flush(): Promise<void> {
    clearTimeout(this.again);
    this.flushing ??= this.send().finally(() => (this.flushing = undefined));
    return this.flushing;
  }

  private async send(): Promise<void> {
    for (;;) {
      const open = this.waiting.read().filter(({ refused }) => refused === '');
      const [first] = open;
      if (!first) return;
      // A run of one walk's, in its order; one with a photograph goes by itself.
      const end = open.findIndex(({ walkId, photo }) => walkId !== first.walkId || photo !== null);
      const some = first.photo ? [first] : open.slice(0, end < 0 ? AT_ONCE : Math.min(end, AT_ONCE));
      try {
        await this.sendSome(some);
      } catch (error) {
        if (error instanceof Refusal && error.problem && error.problem.status < 500) {
          await this.refused(some, error.message);
          continue;
        }
        this.again = setTimeout(() => void this.flush(), AGAIN_MS);
        return;
      }
    }
  }

  private async sendSome(some: readonly Numbered[]): Promise<void> {
    const [first] = some as [Numbered, ...Numbered[]];
    const photo = first.photo ? await this.sending.sendPhoto(first.photo) : '';
    const marks = some.map(({ mark }) => (photo === '' ? mark : { ...mark, photo }));
    await this.sending.sendMarks(first.walkId, marks);
    const db = await this.opened;
    const done = db.transaction('marks', 'readwrite');
    await Promise.all([...some.map(({ order }) => done.store.delete(order)), done.done]);
    const gone = new Set(some.map(({ order }) => order));
    this.waiting.set(this.waiting.read().filter(({ order }) => !gone.has(order)));
  }

  /** They stay here, with the reason, until a person sends them again. */
  private async refused(some: readonly Numbered[], why: string): Promise<void> {
    const db = await this.opened;
    const orders = new Set(some.map(({ order }) => order));
    for (const { order, ...one } of some) await db.put('marks', { ...one, refused: why }, order);
    this.waiting.set(this.waiting.read().map((one) => (orders.has(one.order) ? { ...one, refused: why } : one)));
  }

  /** Tries those that were refused once more. */
  async retry(): Promise<void> {
    this.waiting.set(this.waiting.read().map((one) => ({ ...one, refused: '' })));
    await this.flush();
  }
}

let shared: MarkQueue | undefined;

/** This phone's own; opened when it is first asked for. */
export function markQueue(): MarkQueue {
  if (shared) return shared;
  shared = new MarkQueue({
    sendMarks: (walk, marks) => call('markWalk', { params: { walk }, body: { marks } }),
    sendPhoto: async (photo) => (await call('sendPhoto', { body: photo })).sha256,
  });
  const queue = shared;
  feed.returned.on(() => void queue.flush());
  return queue;
}

export const useWaitingMarks = (): readonly WaitingMark[] => useFollowed(markQueue().waiting);

/** Keys of a walk’s items that were marked here and are not with the server yet */
export const waitingKeys = (waiting: readonly WaitingMark[], walk: string): string[] =>
  waiting.flatMap(({ walkId, mark }) => (walkId === walk ? [itemKey(mark.lampId, mark.channel)] : []));
