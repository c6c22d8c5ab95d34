/** Fields that several kinds of record have. */
import { PORT_ADDRESS_LAST, SACN_LAST, SHOW_UNIVERSE_LAST, SLOTS, type Protocol } from '../../base/address';
import {
  begun,
  list,
  must,
  nullable,
  oneOf,
  pattern,
  reference,
  shape,
  text,
  when,
  whole,
  type Begun,
} from '../../base/field';

export const PROTOCOLS = ['sacn', 'artnet'] as const satisfies readonly Protocol[];

export const protocol = oneOf('Protocol', PROTOCOLS);

export const showUniverse = (label = 'Universe') => whole(label, 1, SHOW_UNIVERSE_LAST);

export const channel = (label = 'Channel') => whole(label, 1, SLOTS);

/** A number on the wire, as the field `protocol` beside it allows. */
export const wireNumber = must(
  must(
    whole('Wire number', 0, SACN_LAST, { about: 'sACN 1–63999, Art-Net Port-Address 0–32767.' }),
    'artnet',
    `Art-Net universes run from 0 to ${PORT_ADDRESS_LAST}.`,
    (number, { protocol }) => protocol !== 'artnet' || number <= PORT_ADDRESS_LAST,
    when({ protocol: { const: 'artnet' } }, (own) => ({ [own]: { maximum: PORT_ADDRESS_LAST } })),
  ),
  'sacn',
  'sACN universes begin at 1.',
  (number, { protocol }) => protocol === 'artnet' || number >= 1,
  when({ protocol: { const: 'sacn' } }, (own) => ({ [own]: { minimum: 1 } })),
);

export const wireUniverse = shape('Universe on the wire', { protocol, number: wireNumber });

/** Where a lamp or one of its blocks begins: universe and channel are both 0 where nobody has given it an address. */
export const lampAddress = {
  // That both or neither are 0 is looked at with the whole show, which is quicker for many lamps.
  universe: {
    ...whole('Universe', 0, SHOW_UNIVERSE_LAST, { about: 'Show universe, from 1; 0: no address.' }),
    beside: [
      () => ({
        oneOf: [
          { properties: { universe: { const: 0 }, channel: { const: 0 } } },
          { properties: { universe: { minimum: 1 }, channel: { minimum: 1 } } },
        ],
      }),
    ],
  },
  channel: whole('Start channel', 0, SLOTS, { about: 'From 1; 0: no address.' }),
};

export const placeId = begun(nullable(reference('Place')), null);

/** Dotted IPv4; may be empty. */
export const ipv4 = (label = 'Address', words?: { about?: string }) =>
  pattern(
    label,
    15,
    /^$|^((25[0-5]|2[0-4]\d|1?\d?\d)(\.|$)){4}$/,
    'The address must be four numbers with dots, as in 10.0.0.21.',
    words,
  );

const filled = (label: string, sentence: string) => {
  const of = ipv4(label);
  return { ...of, rule: of.rule.required(sentence) };
};
export const ipv4Given = (label: string) => filled(label, `The ${label.toLowerCase()} is missing.`);

/**
 * How packets find who is to hear them. `usual` is what the protocol does of itself: sACN goes to a
 * multicast group a universe, Art-Net to each device that lists the universe.
 */
export const DELIVERIES = ['usual', 'multicast', 'unicast', 'broadcast'] as const;
export type Delivery = (typeof DELIVERIES)[number];

export const delivery = begun(oneOf('Delivery', DELIVERIES), 'usual');
/** Where unicast goes; as the field `delivery` beside it asks. */
export const addresses: Begun<readonly string[]> = begun(
  must(
    list('Addresses', filled('Address', 'An address is empty.'), 256, { what: 'The addresses' }),
    'named',
    'Say to which addresses unicast goes.',
    (all, { delivery: way }) => way !== 'unicast' || all.length > 0,
    when({ delivery: { const: 'unicast' } }, (own) => ({ [own]: { minItems: 1 } })),
  ),
  [],
);

export const priority = (label = 'Priority') => begun(whole(label, 0, 200), 100);

/** Name of a kept file: its SHA-256 in hexadecimal. */
export const keptFile = begun(
  nullable(
    pattern('File', 64, /^[0-9a-f]{64}$/, 'A kept file is named by 64 hexadecimal digits.', {
      about: 'SHA-256 of a kept file, in hexadecimal.',
    }),
  ),
  null,
);

export const note = (label = 'Note', longest = 400) => begun(text(label, longest), '');
