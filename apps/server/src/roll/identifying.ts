/** Lamps that identify because a person asked them to. They stop when that person's device goes, or Taxiarch is made safe. */
import type { LampOutcome } from '@taxiarch/core/truth/roll';
import type { LampSetter } from './setter';

const LOOK_MS = 1000;

export class Identifying {
  /** Clients by the UIDs of the lamps that identify for them; an empty one goes with no device. */
  private readonly clients = new Map<string, string>();

  constructor(
    private readonly setter: Pick<LampSetter, 'identify'>,
    private readonly isHot: () => boolean,
  ) {
    setInterval(() => this.look(), LOOK_MS).unref();
  }

  set(client: string, uids: readonly string[], on: boolean): Promise<LampOutcome[]> {
    for (const uid of uids)
      if (on) this.clients.set(uid, client);
      else this.clients.delete(uid);
    return this.setter.identify(uids, on);
  }

  /** The device of `client` is gone. */
  leave(client: string): void {
    this.stop((one) => one === client);
  }

  /** They were asked while hot. That they stop is sent also while safe. */
  private look(): void {
    if (this.clients.size > 0 && !this.isHot()) this.stop(() => true);
  }

  private stop(whose: (client: string) => boolean): void {
    const uids = [...this.clients].flatMap(([uid, client]) => (whose(client) ? [uid] : []));
    if (uids.length > 0) void this.set('', uids, false).catch(() => undefined);
  }
}
