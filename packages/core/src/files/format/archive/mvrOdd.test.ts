/** Scenes that are odd in ways that are met: each oddity is told by name, and spoils only itself. */
import { strToU8, zipSync } from 'fflate';
import { formatAddress } from '../../../base/address';
import { LIBRARY } from '../../../rig/library';
import { makeZip, openZip, readMvr, writeGdtf } from '.';

const spot = LIBRARY.find(({ name }) => name === 'Spot 16')!;
const MODE = spot.modes[0]!.name;
const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const thing = (tag: string, n: number, inside: string) =>
  `<${tag} name="${tag} ${n}" uuid="${uuid(n)}"><GDTFSpec>${spot.maker}@${spot.name}.gdtf</GDTFSpec><GDTFMode>${MODE}</GDTFMode><FixtureID>${n}</FixtureID>${inside}</${tag}>`;
const at = (...addresses: readonly (readonly [part: number, at: string])[]) =>
  `<Addresses>${addresses.map(([part, text]) => `<Address break="${part}">${text}</Address>`).join('')}</Addresses>`;
const scene = (objects: string, major = '1'): Uint8Array =>
  makeZip({
    'GeneralSceneDescription.xml': strToU8(
      `<GeneralSceneDescription verMajor="${major}" verMinor="6"><Scene><Layers><Layer name="L" uuid="${uuid(99)}"><ChildList>${objects}</ChildList></Layer></Layers></Scene></GeneralSceneDescription>`,
    ),
    [`${spot.maker}@${spot.name}.gdtf`]: writeGdtf(spot),
  });
const read = (bytes: Uint8Array) => {
  const content = readMvr(bytes);
  if (!content.ok) throw new Error(content.why);
  return content.value;
};

test('a hoist with an address occupies its slots; one without stays a part of the scene', () => {
  const { lamps, notes } = read(
    scene(thing('Fixture', 1, at([0, '1.1'])) + thing('Support', 2, at([0, '2.1'])) + thing('Support', 3, '')),
  );
  expect(lamps.map(({ name, addresses }) => [name, addresses?.map(formatAddress)])).toEqual([
    ['Fixture 1', ['1/1']],
    ['Support 2', ['2/1']],
  ]);
  expect(notes).toContain('1 support of the scene is kept and goes out again: Support 3.');
});

test('a matrix with numbers that are none is told, and its place left out', () => {
  const { lamps, notes } = read(scene(thing('Fixture', 1, '<Matrix>{1,0,0}{0,1,0}{0,0,1}{NaN,0,0}</Matrix>')));
  expect(lamps[0]).not.toHaveProperty('x');
  expect(notes).toContain('1 fixture whose matrix cannot be read; their places are left out: Fixture 1.');
});

test('of two addresses for one part the first counts, and the second is told', () => {
  const { lamps, notes } = read(scene(thing('Fixture', 1, at([0, '1.1'], [0, '7.1']))));
  expect(lamps[0]!.addresses!.map(formatAddress)).toEqual(['1/1']);
  expect(notes).toContain('Fixture 1: two addresses for its part 1; “7.1” is left out.');
});

test('another major version is told', () => {
  expect(read(scene(thing('Fixture', 1, ''), '2')).notes[0]).toMatch(/^The file is MVR version 2;/);
});

test('an archive with a password, or with something before it, says just that', () => {
  const zip = zipSync({ 'a.txt': strToU8('hello') }, { level: 0 });
  const locked = zip.slice();
  locked[6] = locked[6]! | 1;
  expect(openZip(locked)).toMatchObject({ ok: false, why: expect.stringMatching(/protected by a password/) as string });
  expect(openZip(Uint8Array.from([...strToU8('MZ stub'), ...zip]))).toMatchObject({
    ok: false,
    why: 'The archive begins only after 7 bytes of something else. Unpack it and pack it again.',
  });
  expect(openZip(zip)).toMatchObject({ ok: true });
});
