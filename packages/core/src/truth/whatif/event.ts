/** What can happen on a time line, and how it changes the world while it lasts. */
import { list, measure, oneOf, shape, text, whole, type Of } from '../../base/field';
import {
  addSender,
  plainStream,
  withNode,
  withPort,
  withSender,
  withStreams,
  withVisualiser,
  type World,
} from '../simulate';
import type { ShowRecords } from '../../show/records';

export const HAPPENS = [
  'cable',
  'port cable',
  'power',
  'freeze',
  'stop',
  'multicast',
  'sync',
  'lossy',
  'second desk',
  'place power',
] as const;
export type Happens = (typeof HAPPENS)[number];

const seconds = (label: string, words: string) =>
  measure(label, 0, 3600, {
    what: words,
    unit: 's',
    type: 'a number of seconds',
    below: 'cannot be less than nothing.',
    above: 'can be an hour at most.',
  });

const eventFields = {
  kind: oneOf('What happens', HAPPENS),
  /** Id of the machine or place; for a second desk that of the desk whose universes it sends as well */
  id: text('Which', 120),
  port: whole('Port', 0, 4096),
  at: seconds('At', 'The time'),
  /** How long it lasts; 0: to the end */
  lasts: seconds('Lasts', 'How long it lasts'),
  /** Of a lossy link, packets that are lost, %; of a second desk its priority */
  amount: whole('Amount', 0, 200),
};
export interface WhatIfEvent extends Of<typeof eventFields> {}
export const whatIfEvent = shape<typeof eventFields, WhatIfEvent>('Event', eventFields);
export const whatIfEvents = list<WhatIfEvent>('Events', whatIfEvent, 200);

/** How long machines take from power to work, s: what is usual, said with every result. */
export const BOOT_S = { node: 8, sender: 30 } as const;

/** The world with more that only what if asks: who is lossy, and places without power. */
export interface WhatIfWorld extends World {
  /** Part of the packets that are lost on the way from a sender or to a node, 0–1, by their ids */
  readonly lossy: ReadonlyMap<string, number>;
  readonly darkPlaces: ReadonlySet<string>;
  /** Senders whose synchronisation packets do not come any more */
  readonly unsynced: ReadonlySet<string>;
}

const off = (world: WhatIfWorld, ids: ReadonlySet<string>): WhatIfWorld => {
  let now: World = world;
  for (const id of ids) {
    now = withNode(now, id, () => ({ powered: false }));
    now = withSender(now, id, () => ({ on: false }));
    now = withVisualiser(now, id, () => ({ on: false }));
  }
  return { ...world, ...now };
};

/** An event that holds at a time, and one that is over and still has an effect: machines start up. */
export function applied(
  world: WhatIfWorld,
  event: WhatIfEvent,
  { machine }: Pick<ShowRecords, 'machine'>,
): WhatIfWorld {
  const { kind, id, port, amount } = event;
  const keep = (now: World): WhatIfWorld => ({ ...world, ...now });
  switch (kind) {
    case 'cable':
      return keep(
        withSender(
          withNode(world, id, () => ({ plugged: false })),
          id,
          () => ({ on: false }),
        ),
      );
    case 'port cable':
      return keep(withPort(world, id, port, { cable: false }));
    case 'power':
      return off(world, new Set([id]));
    case 'freeze':
    case 'stop':
      return keep(withSender(world, id, () => ({ on: false })));
    case 'multicast':
      return keep(
        world.nodes
          .filter((one) => one.id === id || machine.some((its) => its.id === one.id && its.placeId === id))
          .reduce<World>((now, one) => withNode(now, one.id, () => ({ multicast: false })), world),
      );
    case 'sync':
      return { ...world, unsynced: new Set([...world.unsynced, id]) };
    case 'lossy':
      return { ...world, lossy: new Map([...world.lossy, [id, amount / 100]]) };
    case 'second desk': {
      const first = world.senders.find((one) => one.id === id);
      if (!first) return world;
      const streams = first.streams
        .filter((one) => one.on)
        .map(({ wire, universe }) =>
          plainStream(wire, {
            universe,
            priority: amount,
            travels: wire.protocol === 'sacn' ? 'multicast' : 'broadcast',
          }),
        );
      return keep(addSender(world, { id: SECOND_DESK, name: 'A second desk', address: '', streams }));
    }
    case 'place power':
      return {
        ...off(world, new Set(machine.filter(({ placeId }) => placeId === id).map((one) => one.id))),
        darkPlaces: new Set([...world.darkPlaces, id]),
      };
  }
}

export const SECOND_DESK = 'second-desk';
/** Where synchronisation packets go in it */
const SYNC_ADDRESS = 63_998;

/** Whoever is to lose its synchronisation has one before. */
export const synced = (world: WhatIfWorld, events: readonly WhatIfEvent[]): WhatIfWorld =>
  events
    .filter(({ kind }) => kind === 'sync')
    .reduce((now, { id }) => ({ ...now, ...withStreams(now, id, () => ({ syncAddress: SYNC_ADDRESS })) }), world);

/** Whether it switches power: then machines start up when it is over. */
export const isPower = ({ kind }: WhatIfEvent): boolean => kind === 'power' || kind === 'place power';
