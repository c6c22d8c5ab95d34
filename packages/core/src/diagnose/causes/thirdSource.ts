/** Somebody sends a universe who is not planned to. */
import { byHand, subject, type Cause } from '../cause';
import { fromWireKey, wireKey } from '../../address';

export const thirdSource: Cause = {
  id: 'third-source',
  common: 0.5,
  *find(scene) {
    const known = new Set(scene.whole.senders.map(({ id }) => id));
    const strangers = new Map<string, typeof scene.seen.streams>();
    for (const one of scene.seen.streams) {
      const planned = scene.whole.senders
        .filter(({ id }) => id === one.sender)
        .some(({ streams }) => streams.some(({ wire }) => wireKey(wire) === one.key));
      if (planned) continue;
      const who = known.has(one.sender) ? one.sender : one.address;
      strangers.set(who, [...(strangers.get(who) ?? []), one]);
    }
    for (const [who, streams] of strangers) {
      // A sender of the show that lies beside its plan has causes of its own.
      if (known.has(who)) continue;
      const node = scene.whole.nodes.find(({ address }) => address === who);
      if (node) continue;
      yield {
        about: subject('stream', who),
        says: `Somebody at ${who} sends ${streams.length === 1 ? 'this universe' : `${streams.length} universes`} and is not planned to.`,
        change: (world) => ({
          ...world,
          senders: [
            ...world.senders,
            {
              id: who,
              name: who,
              address: who,
              cid: `stranger ${who}`,
              on: true,
              through: null,
              streams: streams.map(({ key, priority, slots, pace, levels }) => ({
                universe: null,
                wire: fromWireKey(key),
                priority,
                rate: pace === 'slow' ? 1 : 40,
                startCode: levels ? 0 : 1,
                slots,
                syncAddress: 0,
                travels: 'multicast' as const,
                ragged: pace === 'ragged',
                on: true,
              })),
            },
          ],
        }),
        repair: byHand(`Find the machine at ${who} and switch its output off, or plan it as a sender.`),
      };
    }
  },
};
