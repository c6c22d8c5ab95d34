/** The ship’s lamps as the crew hung them: which cable, in what order, and how each was set. A table of its own. */
import { random } from '../../truth/fault';
import { formatUid } from '../../protocol/rdm';
import { HungLamp, HungRig, type Plug } from '../../truth/hung';
import type { FixtureType } from '../../show/records';
import { nightFerry } from './nightFerry';

/** Whole batches hang on one cable each, from the box outward; nothing here is looked up in the plan of ports. */
const CABLES: readonly (Plug & { readonly from: number; readonly to: number })[] = [
  { box: 'wheelhouse', port: 1, from: 1, to: 12 },
  { box: 'foredeck', port: 1, from: 21, to: 96 },
  { box: 'car-deck', port: 1, from: 101, to: 120 },
  { box: 'car-deck', port: 2, from: 201, to: 220 },
  { box: 'car-deck', port: 3, from: 131, to: 158 },
  { box: 'car-deck', port: 4, from: 231, to: 258 },
  { box: 'boiler', port: 1, from: 301, to: 378 },
  { box: 'car-deck', port: 5, from: 401, to: 472 },
  { box: 'car-deck', port: 6, from: 501, to: 550 },
  { box: 'boiler', port: 2, from: 381, to: 392 },
  { box: 'boiler', port: 3, from: 481, to: 492 },
  { box: 'boiler', port: 4, from: 601, to: 636 },
  { box: 'wheelhouse', port: 2, from: 701, to: 718 },
  { box: 'quay', port: 1, from: 721, to: 728 },
];

/** Makers have numbers of their own; ours come from those that are free for tests (ANSI E1.20, annex F). */
const MAKERS: Readonly<Record<string, number>> = {
  Saltcote: 0x7ff1,
  Orrin: 0x7ff2,
  Tern: 0x7ff3,
  Quillon: 0x7ff4,
  Marram: 0x7ff5,
  Baleen: 0x7ff6,
};
/** Serial numbers do not run with the lamps: spread over all by an odd factor. */
const serial = (number: number): number => Math.imul(number, 0x9e37_79b1) >>> 0;

/** One more lies in its case: no plan knows it, and nobody has plugged it in. */
const spare = (type: FixtureType): HungLamp =>
  new HungLamp(
    {
      ...{ tag: '999', uid: formatUid(MAKERS['Orrin']!, serial(999)), type, x: 0, y: 2, z: 0, plug: null, order: 0 },
      state: { address: 1, personality: 2, label: '', values: {} },
    },
    true,
  );

/** The crew’s rig, whole and rightly set; each call makes another. */
export function hungShip(chance: () => number = random(1)): HungRig {
  const { lamp, type } = nightFerry();
  const types = new Map(type.map((one) => [one.id, one]));
  const lamps = lamp.map(({ number, name, typeId, mode, channel, x, y, z }) => {
    const its = types.get(typeId)!;
    const cable = CABLES.find(({ from, to }) => from <= number && number <= to);
    return new HungLamp(
      {
        tag: String(number),
        uid: formatUid(MAKERS[its.maker] ?? 0x7ff0, serial(number)),
        type: its,
        ...{ x, y, z },
        plug: cable ? { box: cable.box, port: cable.port } : null,
        order: cable ? number - cable.from + 1 : 0,
        state: {
          address: channel,
          personality: its.modes.findIndex((one) => one.name === mode) + 1,
          label: name,
          // Hours and strikes as they come with the years
          values: {
            0x0400: 900 + (serial(number) % 4000),
            0x0401: 400 + (serial(number) % 1800),
            0x0402: 60,
            0x0405: 210,
          },
        },
      },
      its.answers === 'yes',
    );
  });
  return new HungRig([...lamps, spare(types.get('type-petal-4')!)], chance);
}
