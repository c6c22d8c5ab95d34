/** Somebody sends a universe who is not planned to. */
import { addSender } from '../../simulate';
import { byHand, isMeant, strayStreams, subject, type Cause } from '../cause';

export const thirdSource: Cause = {
  id: 'third-source',
  title: 'Somebody sends a universe who is not planned to',
  common: 0.5,
  *find({ whole, seen }) {
    // A machine of the show that lies beside its plan has causes of its own.
    const known = new Set([...whole.senders.map(({ id }) => id), ...whole.nodes.map(({ address }) => address)]);
    const strangers = new Map<string, typeof seen.streams>();
    for (const one of seen.streams) {
      if (isMeant(whole, one) || known.has(one.sender) || known.has(one.address)) continue;
      strangers.set(one.address, [...(strangers.get(one.address) ?? []), one]);
    }
    for (const [who, heard] of strangers)
      yield {
        about: subject('stream', who),
        says: `Somebody at ${who} sends ${heard.length === 1 ? 'this universe' : `${heard.length} universes`} and is not planned to.`,
        change: (world) => addSender(world, { id: who, name: who, address: who, streams: strayStreams(heard) }),
        repair: byHand(`Find the machine at ${who} and switch its output off, or plan it as a sender.`),
      };
  },
};
