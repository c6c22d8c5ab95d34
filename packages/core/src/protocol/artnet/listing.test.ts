import fc from 'fast-check';
import { decodePollReply, encodePollReply, portsOf } from './pollReply';
import { listedOf, listingPages, pollMeans, type Listing } from './listing';

const listing = (wanted: readonly number[], over: Partial<Listing> = {}): Listing => ({
  wanted,
  most: 1024,
  ip: '10.0.0.5',
  mac: Uint8Array.of(2, 0, 0, 0, 0, 1),
  name: 'Taxiarch',
  answered: 41,
  active: () => false,
  ...over,
});
/** Port-Addresses of outputs as whoever polls reads them. */
const readBack = (of: Listing): number[] =>
  listingPages(of).flatMap((page) => {
    const read = decodePollReply(encodePollReply(page));
    if (!read.ok) throw new Error(read.why);
    return portsOf(read.value)
      .filter(({ direction }) => direction === 'out')
      .map(({ portAddress }) => portAddress);
  });

test('what is wanted is listed, each once, on pages of one net and sub-net', () => {
  fc.assert(
    fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 32_767 }), { maxLength: 200 }), (wanted) => {
      expect(readBack(listing(wanted))).toEqual([...wanted].sort((a, b) => a - b));
    }),
  );
});

test('no more than may be, and the first of them', () => {
  expect(readBack(listing([300, 5, 4], { most: 2 }))).toEqual([5, 300]);
  // 255 pages is all that a byte can number: here each has one port.
  const scattered = Array.from({ length: 400 }, (_, i) => i * 16);
  expect(listedOf(scattered, 1024)).toHaveLength(255);
  expect(listingPages(listing(scattered)).map(({ bindIndex }) => bindIndex)).toEqual(
    Array.from({ length: 255 }, (_, i) => i + 1),
  );
});

test('a port says whether data comes; with nothing wanted it is a controller without ports', () => {
  const [page] = listingPages(listing([7, 8], { active: (portAddress) => portAddress === 8 }));
  expect(page!.ports.slice(0, 2).map(({ goodOutputA }) => goodOutputA)).toEqual([0, 0x80]);
  expect(listingPages(listing([]))).toMatchObject([{ portCount: 0, style: 1 }]);
});

test('a targeted poll means pages within its range', () => {
  const poll = { kind: 'poll', diagnosticsPriority: 0, estaManufacturer: 0, oem: 0 } as const;
  const [low, high] = listingPages(listing([3, 0x125]));
  const means = (flags: number, targetBottom: number, targetTop: number) =>
    [low!, high!].map((page) => pollMeans({ ...poll, flags, targetBottom, targetTop }, page));
  expect(means(0, 0, 0)).toEqual([true, true]);
  expect(means(0x20, 0, 3)).toEqual([true, false]);
  expect(means(0x20, 0x125, 0x7fff)).toEqual([false, true]);
  expect(means(0x20, 4, 0x124)).toEqual([false, false]);
});

test('its report is written as the standard has it: code, counter, words', () => {
  expect(listingPages(listing([1, 2]))[0]!.nodeReport).toBe('#0001 [0041] Listens to 2');
  expect(listingPages(listing([], { answered: 10_003 }))[0]!.nodeReport).toBe('#0001 [0003] Listens');
});
