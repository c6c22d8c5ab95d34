/** Which universes: whether both ends call them by the same numbers, and whether they are all there. */
import { formatUniverses, formatWire, protocolName, wireKey } from '../../base/address';
import { changed } from '../../show/edit';
import type { Link, ShowRecords } from '../../show/records';
import { type Case, type DoctorLine, fine, planned, wrong } from './doctorLine';
import { linkedUniverses } from './linked';
import { sendersOf } from '../../network/flow';

const BASE = 'Numbering begins alike';

/** The difference that all universes have in common; undefined if they have none, or several. */
function commonShift(pairs: readonly (readonly [number, number])[]): number | undefined {
  const shifts = new Set(pairs.map(([a, b]) => b - a));
  return shifts.size === 1 ? [...shifts][0] : undefined;
}

/** Wire numbers of everything that is linked to a link's visualiser by its protocol. */
function wantedBy({ visualiserId, protocol: by }: Link, { link: links, machine, universe }: ShowRecords): number[] {
  const senders = sendersOf(machine);
  return links.flatMap((one) => {
    const sender = senders.find(({ id }) => id === one.senderId);
    if (one.visualiserId !== visualiserId || one.protocol !== by || !sender) return [];
    return linkedUniverses(one, sender, universe).flatMap(({ sent }) => (sent?.protocol === by ? [sent.number] : []));
  });
}

/** Numbers as planned on both ends; undefined if they agree. */
function differInPlan({ link, records, universes, visualiser, sender }: Case): DoctorLine | undefined {
  const pairs = universes.flatMap(({ sent, heard }) =>
    sent && sent.protocol === heard.protocol ? [[sent.number, heard.number] as const] : [],
  );
  const shift = commonShift(pairs);
  if (shift === 0 || pairs.length === 0) return undefined;
  const first = universes.find(({ sent }) => sent)!;
  const says = `${formatWire(first.sent!)} is sent and ${formatWire(first.heard)} is listened to`;
  const turned = { ...link, receiverBase: (1 - link.receiverBase) as Link['receiverBase'] };
  const mends =
    link.protocol === 'artnet' &&
    linkedUniverses(turned, sender, records.universe).every(
      ({ sent, heard }) => !sent || wireKey(sent) === wireKey(heard),
    );
  const line = wrong(
    'base',
    BASE,
    shift === undefined
      ? `${says}; the others differ too, each in its own way.`
      : `${says}: off by ${Math.abs(shift)}.`,
    mends ? `${visualiser.name} counts from ${turned.receiverBase}.` : 'Change the numbers in the lines of this link.',
  );
  if (!mends) return line;
  const plan = {
    sentence: `Said that ${visualiser.name} counts from ${turned.receiverBase}`,
    changes: [changed('link', link, turned)],
    lines: [
      {
        subject: `${link.name}, ${visualiser.name} counts from`,
        before: String(link.receiverBase),
        after: String(turned.receiverBase),
      },
    ],
  };
  return { ...line, repair: { label: `Say that it counts from ${turned.receiverBase}`, plan } };
}

/** Numbers that the visualiser says it listens to; undefined if it says nothing of them. */
function asItSays({ link, records, universes, node, visualiser }: Case): DoctorLine | undefined {
  const listens = node?.ports.flatMap(({ direction, sacn, portAddress }) =>
    direction === 'out' && !sacn ? [portAddress] : [],
  );
  if (link.protocol !== 'artnet' || !listens || listens.length === 0) return undefined;
  const there = new Set(listens);
  // All that is linked to it counts: one link's numbers, moved by one, may be its neighbour's.
  const wanted = wantedBy(link, records);
  const shift = wanted.every((number) => there.has(number))
    ? undefined
    : [1, -1].find((by) => wanted.every((number) => there.has(number + by)));
  if (shift !== undefined)
    return wrong(
      'base',
      BASE,
      `${visualiser.name} listens ${shift > 0 ? 'one above' : 'one below'} what is sent: it is off by one.`,
      `Set ${visualiser.name} to count from ${shift > 0 ? 1 : 0}.`,
    );
  const lacks = universes.flatMap(({ sent }) => (sent && !there.has(sent.number) ? [formatWire(sent)] : []));
  return lacks.length === 0
    ? fine('base', BASE, `${visualiser.name} says that it listens to these.`, 'said')
    : wrong(
        'base',
        BASE,
        `${visualiser.name} does not listen to ${lacks.join(', ')}.`,
        `Switch these universes on in ${visualiser.name}.`,
      );
}

export const base = (one: Case): DoctorLine =>
  differInPlan(one) ??
  asItSays(one) ??
  planned(
    'base',
    BASE,
    one.link.protocol === 'sacn' ? 'sACN counts from 1 everywhere.' : 'The numbers of both ends agree in the plan.',
  );

export function enough({ link, used, universes }: Case): DoctorLine {
  const title = 'As many universes as are used';
  const linked = new Set(universes.map(({ universe }) => universe));
  const lacking = used.filter((universe) => !linked.has(universe));
  return lacking.length === 0
    ? planned(
        'enough',
        title,
        `All ${used.length} that it sends by ${protocolName(link.protocol)} and that feed lamps.`,
      )
    : wrong(
        'enough',
        title,
        `${formatUniverses(lacking)} ${lacking.length === 1 ? 'feeds' : 'feed'} lamps and ${lacking.length === 1 ? 'is' : 'are'} not in this link.`,
        'Add them to its lines.',
      );
}
