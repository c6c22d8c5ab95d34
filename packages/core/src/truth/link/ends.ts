/** What stands between the two machines: their networks, masks, interfaces and firewalls. */
import { addressesOf, canReach, isLoopback, isStandIn } from '../../network/ip';
import { ask, fine, planned, wrong, type Case, type DoctorLine } from './doctorLine';

export function together({ records, sender, visualiser }: Case): DoctorLine {
  const title = 'On one computer, or on one network';
  if (sender.id === visualiser.id) return planned('together', title, 'Both are one computer.');
  const reach = canReach(sender.machine, visualiser, records.network);
  return reach.reaches
    ? planned('together', title, reach.sentence)
    : wrong('together', title, reach.sentence, `Give ${visualiser.name} an address in the network of ${sender.name}.`);
}

export function mask({ sender, visualiser }: Case): DoctorLine {
  const title = 'Subnet and mask';
  const [a, b] = [addressesOf(sender.machine)[0], addressesOf(visualiser)[0]];
  if (!a || !b)
    return wrong(
      'mask',
      title,
      'One of the two has no address in the plan.',
      'Give both an address in Wire, Addresses.',
    );
  const says = `${a.text}/${a.prefix} and ${b.text}/${b.prefix}`;
  return a.prefix === b.prefix
    ? planned('mask', title, `${says}: the same mask.`)
    : wrong('mask', title, `${says}: the masks differ.`, 'Give both the same mask.');
}

/** The visualiser is heard, and from the address that it is planned to have. */
export function interfaces(one: Case): DoctorLine {
  const { records, visualiser, sender, streams, node } = one;
  const title = 'The right interface on each side';
  const its = addressesOf(visualiser).map(({ text }) => text);
  const from = [...new Set(streams.map(({ stream }) => stream.address))];
  const should = sender.addresses;
  const strange = from.find((address) => should.length > 0 && !should.includes(address));
  if (strange !== undefined)
    return wrong(
      'interface',
      title,
      `${sender.name} sends from ${strange}; planned is ${should.join(' or ')}.`,
      `Choose the interface ${should[0]} in the network settings of ${sender.name}.`,
      'heard',
    );
  if (node && !its.includes(node.address))
    return wrong(
      'interface',
      title,
      `${visualiser.name} answers from ${node.address}; planned is ${its.join(' or ') || 'no address'}.`,
      `Choose the interface ${its[0] ?? ''} in the network settings of ${visualiser.name}.`,
      'said',
    );
  const ends = [...addressesOf(visualiser), ...addressesOf(sender.machine)];
  const loop = ends.find(({ number }) => isLoopback(number) && !isStandIn(number, records.network));
  if (loop && sender.id !== visualiser.id)
    return wrong(
      'interface',
      title,
      `${loop.text} is loopback: it reaches programs of the same computer only.`,
      'Choose an interface of the network instead.',
    );
  return node
    ? fine('interface', title, `${visualiser.name} answers from ${node.address}, as planned.`, 'said')
    : ask(
        one,
        'interface',
        title,
        `${visualiser.name} does not answer polls, so its interface cannot be seen from here.`,
        `Look in its network settings that ${its[0] ?? 'its address'} is chosen.`,
      );
}

export function firewall(one: Case): DoctorLine {
  const title = 'No firewall between';
  const { node, visualiser, link } = one;
  if (node && link.protocol === 'artnet')
    return fine('firewall', title, `${visualiser.name} answers polls, so Art-Net’s port is open there.`, 'said');
  return ask(
    one,
    'firewall',
    title,
    node
      ? `${visualiser.name} answers polls; whether sACN gets through cannot be seen from here.`
      : `${visualiser.name} is not heard at all.`,
    `Allow ${visualiser.name} to receive UDP on port ${link.protocol === 'sacn' ? 5568 : 6454}, and set its network to private.`,
  );
}
