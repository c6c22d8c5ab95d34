/** What is heard of the sender, and when it began. */
import { formatUniverses, protocolName } from '../../base/address';
import { arrives } from './arrives';
import { ask, fine, planned, wrong, type Case, type DoctorLine } from './doctorLine';

export function protocol({ link, sender, universes, streams }: Case): DoctorLine {
  const title = `${protocolName(link.protocol)} is on at the sender`;
  const other = universes.find(({ sent }) => sent && sent.protocol !== link.protocol);
  if (other)
    return wrong(
      'protocol',
      title,
      `${sender.name} is planned to send universe ${other.universe} by ${protocolName(other.sent!.protocol)}.`,
      `Set its line, or this link, to the same protocol.`,
    );
  return streams.length > 0
    ? fine('protocol', title, `${sender.name} is heard by ${protocolName(link.protocol)}.`, 'heard')
    : wrong(
        'protocol',
        title,
        `Nothing of ${sender.name} is heard by ${protocolName(link.protocol)}.`,
        `Switch ${protocolName(link.protocol)} on at ${sender.name}, and its output.`,
      );
}

export function onTheWire({ universes, streams, sender }: Case): DoctorLine {
  const title = 'The universes are on the wire now';
  const heard = new Set(streams.map(({ universe }) => universe));
  const silent = universes.map(({ universe }) => universe).filter((universe) => !heard.has(universe));
  return silent.length === 0
    ? fine('universes', title, `All ${universes.length} are heard.`, 'heard')
    : wrong(
        'universes',
        title,
        `${silent.length} of ${universes.length} are not heard from ${sender.name}: ${formatUniverses(silent)}.`,
        `Switch these on in the outputs of ${sender.name}; some senders are silent while nothing changes.`,
      );
}

/** What was heard in so short a time after listening began was there before. */
const ALREADY_THERE_MS = 15_000;

/** Why the order matters, and to whom. */
const WHY = {
  sender: 'some programs look for senders only when they begin.',
  visualiser: 'some senders look for receivers only when they begin.',
} as const;

/** Seen only where both began while we listened; a machine that was there before is asked about. */
export function order(one: Case): DoctorLine {
  const { link, node, streams, visualiser, sender, listeningSince } = one;
  const { startsFirst } = link;
  if (startsFirst === 'either') return planned('order', 'Which is started first', 'Either may be: the link says so.');
  const [first, second] = startsFirst === 'sender' ? [sender.name, visualiser.name] : [visualiser.name, sender.name];
  const title =
    startsFirst === 'sender'
      ? 'The visualiser was started after the sender'
      : 'The sender was started after the visualiser';
  // A sender has begun before another when all of it is heard, and after it when the first of it is.
  const times = streams.map(({ stream }) => stream.firstSeen);
  const began = startsFirst === 'sender' ? Math.max(0, ...times) : Math.min(...times);
  const beforeUs = (at: number) => at - listeningSince < ALREADY_THERE_MS;
  if (node && streams.length > 0 && !(beforeUs(node.firstSeen) && beforeUs(began))) {
    const late = startsFirst === 'sender' ? began - node.firstSeen : node.firstSeen - began;
    if (late < 0) return fine('order', title, `${first} was heard before ${second}.`, 'heard');
    const says =
      startsFirst === 'sender'
        ? `${second} was there ${Math.round(late / 1000)} s before ${first} sent all of it.`
        : `${second} sent ${Math.round(late / 1000)} s before ${first} was there.`;
    const mend = `Start ${second} again: ${WHY[startsFirst]}`;
    // The order matters only where it explains a picture that is missing.
    const picture = arrives(one);
    if (picture.state === 'must fix') return wrong('order', title, says, mend);
    return picture.state === 'fine'
      ? fine('order', title, `${says} The picture is there anyway.`, picture.known === 'seen' ? 'seen' : 'said')
      : ask(one, 'order', title, says, `If nothing moves in ${visualiser.name}: ${mend}`);
  }
  return ask(
    one,
    'order',
    title,
    'Both were there before Taxiarch began to listen.',
    `If nothing moves in ${visualiser.name}, start ${second} again: ${WHY[startsFirst]}`,
  );
}
