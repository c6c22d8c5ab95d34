import { Light } from '../stage';
import { nightFerry } from '../../whole/demo';
import { Patch, type PatchedLamp, rigOf } from '../patch';
import {
  asPercent,
  asTake,
  defaultsOf,
  highlightOf,
  levelsOf,
  runsOf,
  type ChannelValues,
  receivedBy,
  carriedTo,
  intensityOf,
} from '.';

const { lamp, type } = nightFerry();
const spot = new Patch(lamp, type).lamp('lamp-102')!;
const dimmer = spot.mode.channels.find(({ attribute }) => attribute === 'Dimmer')!;

test('a lamp is taken whole, each slot at its byte', () => {
  const slots = asTake(spot, highlightOf(spot));
  expect(Object.keys(slots)).toHaveLength(spot.footprint);
  expect(Object.keys(slots)[0]).toBe('2/24');
  expect([slots['2/24'], slots['2/25'], slots['2/29'], slots['2/30'], slots['2/31']]).toEqual([128, 0, 255, 255, 255]);
  expect(asTake(spot, defaultsOf(spot))['2/29']).toBe(0);
});

test('one attribute moves only its own slots, coarse and fine', () => {
  expect(levelsOf(spot, dimmer, 0x1234)).toEqual([
    [{ universe: 2, channel: 29 }, 0x12],
    [{ universe: 2, channel: 30 }, 0x34],
  ]);
  expect(asPercent(dimmer, 32768)).toBe('50 %');
});

test('it is given back as one run', () => expect(runsOf(spot)).toEqual(['2/24-46']));

test('a run of pixels is taken like a lamp of many cells, over all its universes', () => {
  const { run, machine } = nightFerry();
  const long = { ...run[0]!, count: 200, start: { kind: 'at', universe: 13, channel: 1 } as const };
  const pixels = new Patch([], [], [long], machine).lamp(long.id)!;
  expect(runsOf(pixels)).toEqual(['13/1-510', '14/1-90']);
  const slots = asTake(pixels, highlightOf(pixels));
  expect(Object.keys(slots)).toHaveLength(600);
  expect([slots['13/1'], slots['14/90'], slots['14/91']]).toEqual([255, 255, undefined]);
});

const { patch } = rigOf(nightFerry());

describe('one lamp after another', () => {
  const level = (patched: PatchedLamp, attribute: string, values: ChannelValues) =>
    values[patched.mode.channels.findIndex((channel) => channel.attribute === attribute)]!;
  const spot = patch.lamp('lamp-101')!;

  test('taking begins at what is received; what is not heard counts as its default', () => {
    const received = receivedBy(spot, () => 7);
    expect(new Set(asTakeLevels(asTake(spot, received)))).toEqual(new Set([7]));
    expect(receivedBy(spot, () => undefined)).toEqual(defaultsOf(spot));
    expect(new Set(asTakeLevels(asTake(spot, null)))).toEqual(new Set([null]));
  });

  test('with light in hand the next lamp is lit as bright, open, and of a colour that is seen', () => {
    for (const patched of patch.all()) {
      const dark = patched.mode.channels.map(() => 0);
      const carried = carriedTo(patched, dark, 0.5);
      if (!patched.mode.channels.some(({ attribute }) => /^(Dimmer|ColorAdd_)/.test(attribute))) continue;
      expect([patched.lamp.number, intensityOf(patched, carried)]).toEqual([
        patched.lamp.number,
        expect.closeTo(0.5, 1),
      ]);
      patched.mode.channels.forEach((channel, i) => {
        if (/^Shutter/.test(channel.attribute)) expect(carried[i]).toBe(channel.highlight);
      });
      const light = new Light(patched);
      const levels = new Map(Object.entries(asTake(patched, carried)));
      const seen = light.whole((universe, channel) => levels.get(`${universe}/${channel}`) ?? 0);
      expect([patched.lamp.number, Math.max(...seen) > 0]).toEqual([patched.lamp.number, true]);
    }
  });

  test('a colour that is up stays as it is; without light in hand nothing is touched', () => {
    const received = receivedBy(spot, () => 90);
    const carried = carriedTo(spot, received, 1);
    for (const attribute of ['Pan', 'ColorSub_C', 'ColorAdd_R'].filter((one) =>
      spot.mode.channels.some((channel) => channel.attribute === one),
    ))
      expect(level(spot, attribute, carried)).toBe(level(spot, attribute, received));
    expect(carriedTo(spot, received, 0)).toBe(received);
  });
});

const asTakeLevels = (slots: Record<string, number | null>) => Object.values(slots);
