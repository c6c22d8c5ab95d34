/** Somebody sends a universe who is not planned to. */
import { formatWire, fromWireKey } from '../../../base/address';
import { addSender, type ObservedStream } from '../../simulate';
import type { Names } from '../scene';
import { byHand, isMeant, strayStreams, subject, type Cause } from '../cause';

/** Who sends what; whoever uses the name of a sender of the show is told apart from it. */
function saysOf(who: string, heard: readonly ObservedStream[], names: Names): string {
  const sends = `sends ${heard.length === 1 ? formatWire(fromWireKey(heard[0]!.key)) : `${heard.length} universes`}`;
  const { borrows } = heard.find((one) => one.borrows) ?? {};
  if (!borrows) return `Somebody at ${who} ${sends} and is not planned to.`;
  const what = borrows.cid ? 'name and component id' : 'name';
  return `Another device at ${who} uses the ${what} of ${names.of(borrows.id)} and ${sends}.`;
}

export const thirdSource: Cause = {
  id: 'third-source',
  title: 'Somebody sends a universe who is not planned to',
  common: 0.5,
  *find({ whole, seen, names }) {
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
        says: saysOf(who, heard, names),
        change: (world) => {
          const { borrows } = heard.find((one) => one.borrows?.cid) ?? {};
          const cid = world.senders.find(({ id }) => id === borrows?.id)?.cid;
          return addSender(world, { id: who, name: who, address: who, streams: strayStreams(heard) }, cid);
        },
        repair: byHand(`Find the machine at ${who} and switch its output off, or plan it as a sender.`),
      };
  },
};
