import { nightFerry } from '@taxiarch/core/demo';
import { Patch } from '@taxiarch/core/patch';
import { asPercent, asTake, defaultsOf, highlightOf, levelsOf, runsOf } from './lampLevels';

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
