/** What the senders play, and what the visualiser makes of levels; without sockets. */
import { nightFerry } from '@taxiarch/core/whole/demo';
import { writeMvr } from '@taxiarch/core/files/format/archive';
import { rigOf } from '@taxiarch/core/rig/patch';
import { CUES, CuePlayer, Looks } from './cues';
import { WallPlayer } from './gangway';
import { NO_MISTAKES, wireWith } from './mistakes';
import { PixelPlayer } from './pixels';
import { recordsFromFile } from './exchange/fromFiles';
import { Scene, withOtherMode } from './visualiser/scene';

const ferry = nightFerry();
const universes = (...numbers: number[]) => new Map(numbers.map((number) => [number, new Uint8Array(512)]));
const bytesOf = (all: ReadonlyMap<number, Uint8Array>) => Buffer.concat([...all.values()]);

test('a cue player goes on by itself when its cue has stood, and to a cue by name', () => {
  const player = new CuePlayer(new Looks(ferry.lamp, ferry.type));
  const slots = universes(1);
  expect(player.cue).toBe('Boarding');
  player.render(slots, 0, 1);
  player.render(slots, 11, 1);
  expect(player.cue).toBe('Boarding');
  player.render(slots, 13, 1);
  expect(player.cue).toBe('Cast off');
  player.go('Open water');
  expect(player.cue).toBe('Open water');
  expect(() => player.go('No such cue')).toThrow('There is no cue “No such cue”.');
});

test.each(CUES.map((cue) => [cue.name, cue] as const))('%s looks the same however long it stands', (_, cue) => {
  const numbers = ferry.universe.map(({ number }) => number);
  const standing = new Looks(ferry.lamp, ferry.type);
  const slots = universes(...numbers);
  for (const [seconds, master] of [
    [0, 1],
    [0.7, 1],
    [5.3, 0.4],
    [11.9, 1],
  ] as const) {
    standing.render(slots, cue, cue, 1, seconds, master);
    const anew = universes(...numbers);
    new Looks(ferry.lamp, ferry.type).render(anew, cue, cue, 1, seconds, master);
    // Byte by byte at once: thousands of single comparisons take seconds.
    expect(bytesOf(slots).equals(bytesOf(anew))).toBe(true);
  }
});

test('the master takes the light down, of pixels and dimmers alike', () => {
  const slots = universes(13, 14);
  new PixelPlayer().render(slots, 1, 0);
  expect(Math.max(...slots.get(13)!, ...slots.get(14)!)).toBe(0);
  new PixelPlayer().render(slots, 1, 1);
  expect(Math.max(...slots.get(14)!)).toBeGreaterThan(100);
});

test('each fader of the wall panel drives its dimmers, and wrong ones are refused in a sentence', () => {
  const panel = new WallPlayer();
  const slots = universes(40);
  panel.setFader(1, 200);
  panel.render(slots, 0, 0.5);
  expect([...slots.get(40)!.subarray(0, 9)]).toEqual([80, 80, 100, 100, 80, 80, 80, 80, 0]);
  expect(() => panel.setFader(4, 1)).toThrow('Faders run from 0 to 3.');
  expect(() => panel.setFader(0, 256)).toThrow('Levels run from 0 to 255.');
});

test('a mistaken base moves one protocol, a mistaken net or sub-net Art-Net alone', () => {
  const mistakes = { ...NO_MISTAKES, shift: { sacn: 1, artnet: -1 } };
  expect([wireWith(mistakes, 'sacn', 6), wireWith(mistakes, 'artnet', 8)]).toEqual([7, 7]);
  const lost = { ...NO_MISTAKES, net: 1, sub: 2 };
  expect([wireWith(lost, 'sacn', 6), wireWith(lost, 'artnet', 0x13)]).toEqual([6, 0x133]);
  expect(wireWith(NO_MISTAKES, 'artnet', 0x13)).toBe(0x13);
});

describe('the visualiser', () => {
  const { patch } = rigOf(ferry);
  const spot = patch.all().find(({ lamp }) => lamp.number === 101)!;
  const slotOf = (attribute: string) =>
    spot.lamp.channel + spot.mode.channels.find((one) => one.attribute === attribute)!.offsets[0]! - 2;
  const lit = (records: typeof ferry) => {
    const scene = new Scene(records);
    const slots = new Uint8Array(512);
    slots[slotOf('Dimmer')] = 255;
    slots[slotOf('Pan')] = 64;
    const light = scene.render((universe) => (universe === spot.lamp.universe ? slots : undefined));
    const at = scene.lamps.findIndex(({ number }) => number === 101) * 5;
    return [...light.subarray(at, at + 5)];
  };

  test('shows a lamp by the levels that it receives, and nothing of what it does not', () => {
    const [red, , , pan] = lit(ferry);
    expect(red).toBeGreaterThan(100);
    expect(pan).toBe(64);
    const dark = new Scene(ferry).render(() => undefined);
    expect(dark.every((byte, i) => byte === 0 || i % 5 > 2)).toBe(true);
  });

  test('drawn from the exported files alone, the ship looks the same at any levels', () => {
    const exported = recordsFromFile(writeMvr({ ...ferry, run: [], machine: [] }, () => undefined));
    const [own, other] = [new Scene(ferry), new Scene(exported)];
    expect(other.lamps).toHaveLength(ferry.lamp.length);
    let seed = 20261126;
    const any = () => (seed = (seed * 1103515245 + 12345) & 0x7fffffff) >> 16;
    for (let round = 0; round < 3; round += 1) {
      const levels = new Map(ferry.universe.map(({ number }) => [number, Uint8Array.from({ length: 512 }, any)]));
      const drawn = (scene: Scene) => {
        const light = scene.render((universe) => levels.get(universe));
        return new Map(scene.lamps.map((lamp, i) => [lamp.number, [lamp, [...light.subarray(i * 5, i * 5 + 5)]]]));
      };
      expect(drawn(other)).toEqual(drawn(own));
    }
    expect(other.lamps.find(({ number }) => number === 101)).toMatchObject({ moves: true, turn: 540, lean: 270 });
  });

  test('with the lamp in another mode the same levels mean something else', () => {
    const wrong = withOtherMode(ferry, 101);
    expect(wrong.lamp.find(({ number }) => number === 101)!.mode).not.toBe(spot.lamp.mode);
    expect(wrong.lamp.filter((lamp, i) => lamp !== ferry.lamp[i])).toHaveLength(1);
    expect(lit(wrong)).not.toEqual(lit(ferry));
    expect(withOtherMode(ferry, 999_999)).toBe(ferry);
  });
});
