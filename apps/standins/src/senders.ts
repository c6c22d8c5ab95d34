/** The senders of the demo's bench, as they were set at their front panels. */
import type { SenderSetup } from './sender';

const straight = (from: number, to: number, shift: number) =>
  new Map(Array.from({ length: to - from + 1 }, (_, i) => [from + i, from + i + shift]));
const NOTHING: ReadonlyMap<number, number> = new Map();

export const BRIDGE_DESK: SenderSetup = {
  id: 'bridge',
  kind: 'console',
  model: 'Baleen Helm',
  name: 'Bridge desk',
  address: '127.0.0.21',
  cid: '7ff00000-0000-4000-8000-b41d6e000001',
  mac: [2, 0x7f, 0xf0, 0, 0, 0x21],
  priority: 100,
  rate: 40,
  sacn: straight(1, 8, 0),
  artnet: straight(9, 12, -1),
};

/** Plays the same show below the Bridge desk's priority, and goes on when that is gone. */
export const STERN_DESK: SenderSetup = {
  ...BRIDGE_DESK,
  id: 'stern',
  model: 'Baleen Helm Low',
  name: 'Stern desk',
  address: '127.0.0.22',
  cid: '7ff00000-0000-4000-8000-57e42d000002',
  mac: [2, 0x7f, 0xf0, 0, 0, 0x22],
  priority: 90,
  sacn: straight(3, 8, 0),
  artnet: NOTHING,
};

export const PORTHOLE: SenderSetup = {
  id: 'porthole',
  kind: 'media server',
  model: 'Orrin Lantern',
  name: 'Porthole',
  address: '127.0.0.23',
  cid: '7ff00000-0000-4000-8000-904770000003',
  mac: [2, 0x7f, 0xf4, 0, 0, 0x23],
  priority: 100,
  rate: 25,
  sacn: NOTHING,
  artnet: straight(13, 38, -1),
};

export const GANGWAY_PANEL: SenderSetup = {
  id: 'gangway',
  kind: 'wall panel',
  model: 'Tern Touch',
  name: 'Gangway panel',
  address: '127.0.0.26',
  cid: '7ff00000-0000-4000-8000-6a6e6a000004',
  mac: [2, 0x7f, 0xf2, 0, 0, 0x26],
  priority: 100,
  rate: 20,
  sacn: new Map([[40, 40]]),
  artnet: NOTHING,
};

/** Nobody planned it; it is off until somebody switches it on. */
export const TENDER_TABLET: SenderSetup = {
  id: 'tender',
  kind: 'console',
  model: 'Tern Slate',
  name: 'Tender tablet',
  address: '127.0.0.98',
  cid: '7ff00000-0000-4000-8000-7e4d3e000005',
  mac: [2, 0x7f, 0xf2, 0, 0, 0x98],
  priority: 100,
  rate: 30,
  sacn: new Map([[6, 6]]),
  artnet: NOTHING,
  off: true,
};
