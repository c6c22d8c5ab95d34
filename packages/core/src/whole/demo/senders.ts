/** Who sends what in the demo show, and the links to its visualiser. */
import { PLAIN_LINE, type Link, type Sending } from '../../show/records';
import { PIXELS } from './pixels';

/** What the Gangway panel sends. */
export const HOUSE_UNIVERSE = 40;
/** What comes in from the Purser's desk. */
export const PURSERS_UNIVERSE = 41;

/** By the machine's id. */
export const SENDING: Readonly<Record<string, Sending>> = {
  'machine-bridge': {
    lines: [
      { ...PLAIN_LINE, from: 1, count: 8, rate: 40 },
      { ...PLAIN_LINE, from: 9, count: 4, rate: 40 },
    ],
    pennant: { letter: 'B', cut: 'swallow', fill: 'plain' },
  },
  'machine-stern': {
    lines: [
      {
        ...PLAIN_LINE,
        from: 3,
        count: 6,
        rate: 40,
        priority: 90,
        note: 'Backup. The Foredeck node cannot merge, so 1 and 2 come from the bridge alone.',
      },
    ],
    pennant: { letter: 'S', cut: 'swallow', fill: 'bars' },
  },
  'machine-porthole': {
    lines: [{ ...PLAIN_LINE, from: PIXELS.first, count: PIXELS.last - PIXELS.first + 1, rate: 25 }],
    pennant: { letter: 'P', cut: 'triangle', fill: 'chevrons' },
  },
  'machine-gangway': {
    lines: [{ ...PLAIN_LINE, from: HOUSE_UNIVERSE, rate: 20, note: 'Four faders by the gangway.' }],
    pennant: { letter: 'G', cut: 'square', fill: 'dots' },
  },
  'machine-pursers': {
    lines: [{ ...PLAIN_LINE, from: PURSERS_UNIVERSE, rate: 20, note: 'Comes in by the Saloon node.' }],
    pennant: { letter: 'D', cut: 'notch', fill: 'dots' },
  },
};

/** Everything goes to the Crow's nest, whose display counts Art-Net from 1. */
export const LINKS: readonly Link[] = (
  [
    ['bridge-sacn', 'Bridge desk by sACN', 'bridge', 'sacn', 1, 8],
    ['bridge-artnet', 'Bridge desk by Art-Net', 'bridge', 'artnet', 9, 4],
    ['porthole', 'Porthole', 'porthole', 'artnet', PIXELS.first, PIXELS.last - PIXELS.first + 1],
  ] as const
).map(([id, name, sender, protocol, from, count]): Link => ({
  id: `link-${id}`,
  rev: 0,
  name: `${name} to Crow’s nest`,
  senderId: `machine-${sender}`,
  visualiserId: 'machine-crow',
  protocol,
  senderBase: 1,
  receiverBase: 1,
  lines: [{ from, count, to: from }],
  startsFirst: 'sender',
}));
