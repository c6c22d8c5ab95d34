/** Test pictures on the output: they move what they took, end with it, and touch nothing of anybody else. */
import { pictureOfUniverses, type TestPicture } from '@taxiarch/core/rig/picture';
import { Output } from './output';
import { Pictures } from './pictures';

function made() {
  const sent: { universe: number; slots: number[] }[] = [];
  const output = new Output(
    new Uint8Array(16),
    { rate: 44, priority: 150, broadcast: false, sync: 0, artSync: false },
    {
      levelsOfOthers: () => new Uint8Array(512).fill(9),
      setTaken: () => undefined,
      sendSacn: (bytes, universe) => {
        // Start code null only (E1.31-2018, table 4-1: slots from octet 126).
        if (bytes[125] === 0 && bytes.length > 600) sent.push({ universe, slots: [...bytes.subarray(126)] });
      },
      sendArtNet: () => undefined,
      artnetTargets: () => ({ addresses: [], ltp: false }),
      broadcastAddress: () => undefined,
      ownAddress: () => undefined,
    },
  );
  const pictures = new Pictures(output, () => 0.5);
  output.makeHot('Mira', 1);
  const show = (id: string, picture: TestPicture, numbers: readonly number[], client = 'phone', speed = 1) =>
    pictures.show(
      {
        ...{ id, client, by: 'Mira', says: picture, speed, level: 1 },
        program: pictureOfUniverses(
          picture,
          numbers.map((number) => ({ number, key: number })),
        ),
        shows: numbers.map((number) => [number, number] as const),
      },
      0,
      1,
    );
  const at = (now: number, universe = 1) => {
    pictures.tick(now);
    output.tick(now);
    return sent.findLast((one) => one.universe === universe)?.slots;
  };
  const held = () => new Set(output.report(0).holds.map(({ universe }) => universe));
  return { output, pictures, show, at, held, sent };
}

test('it moves with time, by its speed, and follows its level', () => {
  const { show, at, pictures } = made();
  expect(show('a', 'every other', [1])).toBeUndefined();
  expect(at(10)!.slice(0, 4)).toEqual([255, 0, 255, 0]);
  expect(at(1010)!.slice(0, 4)).toEqual([0, 255, 0, 255]);
  expect(pictures.tune({ client: 'phone', id: 'a', speed: 0, level: 0.5 })).toBeUndefined();
  expect(at(9000)!.slice(0, 4)).toEqual([0, 128, 0, 128]);
  expect(pictures.report()).toMatchObject([{ id: 'a', says: 'every other', step: 1, speed: 0, level: 0.5 }]);
});

test('another of the same name takes its place, and gives back what it has no use for', () => {
  const { show, held, pictures } = made();
  show('a', 'level', [1, 2]);
  show('a', 'level', [2, 3]);
  expect(held()).toEqual(new Set([2, 3]));
  expect(pictures.report()).toHaveLength(1);
});

test('what somebody else holds is refused in a sentence, and nothing of it is taken', () => {
  const { show, held, pictures } = made();
  show('a', 'level', [1]);
  expect(show('b', 'level', [1, 2], 'desk')).toMatch(/^1\/1 is taken by Mira already/);
  expect([held(), pictures.report().length]).toEqual([new Set([1]), 1]);
});

test('given back by whatever way it is over, and comes back with nobody’s next take', () => {
  const { show, at, output, pictures, held } = made();
  show('a', 'random', [1]);
  expect(at(10)![0]).toBe(128);
  output.giveBack(() => true);
  pictures.tick(20);
  expect([pictures.report(), held()]).toEqual([[], new Set()]);
  output.take({ client: 'phone', by: 'Mira', stay: false, universes: [{ key: 1, show: 1, levels: [[0, 7]] }] }, 2);
  expect(at(30)![0]).toBe(7);
});

test('ended, it gives back its own and leaves the client’s other picture', () => {
  const { show, held, pictures } = made();
  show('a', 'level', [1]);
  show('b', 'level', [1, 2]);
  expect(pictures.end('phone', 'b')).toBeUndefined();
  expect(held()).toEqual(new Set([1]));
  expect(pictures.end('phone', 'b')).toBe('This picture is not shown any more.');
});

test('random at full rate sends every universe at every frame', () => {
  let turn = 0;
  const { show, output, sent } = made();
  show('a', 'random', [1, 2, 3]);
  const pictures = new Pictures(output, () => (turn = (turn + 0.37) % 1));
  pictures.show(
    {
      ...{ id: 'full', client: 'phone', by: 'Mira', says: 'random', speed: 1, level: 1 },
      program: pictureOfUniverses(
        'random',
        [1, 2, 3].map((key) => ({ number: key, key })),
      ),
      shows: [],
    },
    0,
    1,
  );
  sent.length = 0;
  for (let frame = 1; frame <= 20; frame += 1) {
    pictures.tick(frame * 23);
    output.tick(frame * 23);
  }
  expect(sent).toHaveLength(60);
});
