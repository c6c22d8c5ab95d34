/** Lights what somebody who walks has in hand: a picture of their phone’s, given back like anything that it took. */
import { wireKey } from '@taxiarch/core/base/address';
import { universesIn, type Program } from '@taxiarch/core/rig/picture';
import type { EngineHost } from '../bridge/host';
import { holderOf } from '../bridge/holder';
import type { ShowDoor } from '../bridge/showDoor';
import type { Feed } from '../feed/feed';
import type { Lights } from './walkDesk';

const ID = 'walk';

/** Show numbers by the wire keys of a program. */
export const showsOf = (
  program: Program,
  { universe }: ReturnType<ShowDoor['plan']>,
): (readonly [number, number])[] => {
  const keys = universesIn(program);
  return universe.flatMap(({ number, protocol, wire }) => {
    const key = wireKey({ protocol, number: wire });
    return keys.has(key) ? [[key, number] as const] : [];
  });
};

export class WalkLights implements Lights {
  constructor(
    private readonly host: Pick<EngineHost, 'now' | 'ask'>,
    private readonly show: Pick<ShowDoor, 'plan'>,
    private readonly feed: Pick<Feed, 'mind'>,
  ) {}

  get isHot(): boolean {
    return this.host.now().output.hot;
  }

  shines(client: string): boolean {
    return this.host.now().output.pictures.some(({ id, holder }) => id === ID && holder === holderOf(client));
  }

  async light(
    client: string,
    by: string,
    program: Program,
    how: { speed: number; level: number },
  ): Promise<string | undefined> {
    const order = { id: ID, client, by, says: 'walk', program, shows: showsOf(program, this.show.plan()), ...how };
    const refused = await this.host.ask({ type: 'picture', order });
    if (refused === undefined) this.feed.mind(client);
    return refused;
  }

  async dark(client: string): Promise<void> {
    await this.host.ask({ type: 'endPicture', client, id: ID }).catch(() => undefined);
  }
}
