/** The world as it is now, as far as it is heard and said; what can be neither is as planned, and is named. */
import { withNode, reachesHere, type World } from '../simulate';
import { heardSenders, nodesAsTheySay } from './asHeard';
import { groundOf, type Whole } from './scene';

export interface WorldNow {
  readonly world: World;
  /** Senders of which something cannot be heard from here, by name */
  readonly unheard: readonly string[];
}

export function worldAsHeard(whole: Whole): WorldNow {
  const ground = groundOf(whole);
  const planned = ground.world([]);
  const heard = heardSenders(ground, () => true);
  // Planned streams that go to others only: that they are not heard says nothing.
  const hidden = planned.senders.flatMap((sender) => {
    const streams = sender.streams.filter((one) => !reachesHere(planned, one));
    return streams.length > 0 ? [{ ...sender, streams }] : [];
  });
  const told = new Set(ground.seen.nodes.map(({ id }) => id));
  const nodes = nodesAsTheySay(planned.nodes, ground.seen);
  const world = { ...planned, senders: [...heard, ...hidden], nodes };
  // One that would tell and does not is off, or out of reach.
  const away = nodes.filter(({ id, tells }) => tells && !told.has(id));
  return {
    world: away.reduce<World>((now, { id }) => withNode(now, id, () => ({ powered: false })), world),
    unheard: [...new Set(hidden.map(({ id }) => ground.names.of(id)))],
  };
}
