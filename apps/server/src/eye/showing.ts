/** What a match by eye does to the ship: slots that it has taken, and the one lamp that shows itself; all given back. */
import type { TakeOrder } from '../bridge/engineMessages';
import type { EngineHost } from '../bridge/host';
import type { LampSetter } from '../roll/setter';
import type { WantedLevels } from './wanted';

const CLIENT = 'match by eye';

type Held = ReadonlyMap<string, readonly [wire: number, slot: number]>;

export class Showing {
  /** Slots by wire key and slot, by a key of both */
  private held: Held = new Map();
  /** UID of the lamp that shows itself; empty for none */
  private shown = '';
  /** Why what is to be seen is not; empty if it is */
  trouble = '';

  constructor(
    private readonly host: Pick<EngineHost, 'ask'>,
    private readonly setter: Pick<LampSetter, 'identify'>,
  ) {}

  /** Something of it is on the ship. */
  get isOn(): boolean {
    return this.held.size > 0 || this.shown !== '';
  }

  /** Takes what is wanted and gives back what is not any more; has the lamp of a UID show itself, or none. */
  async show({ levels, shows }: WantedLevels, uid: string, by: string): Promise<void> {
    const universes: TakeOrder['universes'][number][] = [...levels].map(([key, slots]) => ({
      key,
      show: shows.get(key)!,
      levels: [...slots],
    }));
    const order = { client: CLIENT, by: `${by}, matching by eye`, stay: true, universes };
    const refused = universes.length > 0 ? await this.host.ask({ type: 'take', order }) : undefined;
    this.trouble = refused ?? '';
    if (refused === undefined)
      await this.leave(
        new Map(
          universes.flatMap(({ key, levels: some }) => some.map(([slot]) => [`${key} ${slot}`, [key, slot] as const])),
        ),
      );
    void this.identify(uid);
  }

  /** Gives back what is held and not among these. */
  private async leave(next: Held): Promise<void> {
    const gone = [...this.held].flatMap(([key, slot]) => (next.has(key) ? [] : [slot]));
    if (gone.length > 0) await this.host.ask({ type: 'giveBack', order: { client: CLIENT, slots: gone } });
    this.held = next;
  }

  private async identify(uid: string): Promise<void> {
    const before = this.shown;
    if (before === uid) return;
    this.shown = uid;
    // The next one first: a person waits for it.
    const shows = uid === '' ? undefined : this.setter.identify([uid], true);
    if (before !== '') void this.stop(before);
    const [outcome] = (await shows?.catch((error: Error) => [{ state: 'no answer', says: error.message }])) ?? [];
    if (outcome && outcome.state !== 'done') this.trouble = `It cannot show itself. ${outcome.says}`;
  }

  private stop(uid: string): Promise<unknown> {
    return this.setter.identify([uid], false).catch(() => undefined);
  }

  /** All as it was. That a lamp stops showing itself is told it also while safe: it began because of us. */
  async dark(uid = this.shown): Promise<void> {
    this.shown = '';
    await Promise.all([
      uid === '' ? undefined : this.stop(uid),
      this.host.ask({ type: 'giveBack', order: { client: CLIENT } }),
    ]);
    this.held = new Map();
  }
}
