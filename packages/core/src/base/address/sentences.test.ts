/** What people may write for addresses, and what they are told where it does not fit. */
import {
  dipSwitches,
  DIP_USUAL,
  formatAddress,
  formatPortAddress,
  formatRange,
  formatUniverses,
  formatWire,
  formatWireFully,
  fromAbsolute,
  isAddressed,
  lastWireNumber,
  protocolName,
  readAddress,
  readChannel,
  readLampAddress,
  readPortAddress,
  readRange,
  readSacnRuns,
  readSacnUniverse,
  readShowUniverse,
  readUniverses,
  readWireToken,
  runsOf,
} from '.';

const why = (result: { ok: boolean; reason?: string; why?: string }): string =>
  result.ok ? 'accepted' : `${result.reason}: ${result.why}`;
const value = <T>(result: { ok: true; value: T } | { ok: false; why: string }): T | string =>
  result.ok ? result.value : result.why;

test.each<readonly [string, () => { ok: boolean }]>([
  ['not-understood: “many” is not a channel', () => readChannel(' many ')],
  ['out-of-range: 513 is not a channel: these run from 1 to 512', () => readChannel('513')],
  ['out-of-range: 0 is not a show universe: these run from 1 to 63999', () => readShowUniverse('U 0')],
  ['not-understood: “xU1” is not a show universe', () => readShowUniverse('xU1')],
  ['out-of-range: 64000 is not an sACN universe: these run from 1 to 63999', () => readSacnUniverse('64000')],
  ['not-understood: “3-47” is not an address: write universe/channel', () => readAddress(' 3-47 ')],
  ['not-understood: “3/4-7-9” is not a run of channels', () => readRange(' 3/4-7-9 ')],
  ['out-of-range: 0 is not an absolute channel: these start at 1', () => fromAbsolute(0)],
  ['out-of-range: 1.5 is not an absolute channel', () => fromAbsolute(1.5)],
  ['out-of-range: 40000000 lies beyond universe 63999', () => fromAbsolute(40_000_000)],
  ['not-understood: “12a” is no universe and no run of them: write 1-12, 41.', () => readUniverses('1, 12a')],
  ['out-of-range: Universes run from 1 to 63999; “0-3” goes beyond.', () => readUniverses('0-3')],
  ['out-of-range: Universes run from 1 to 63999; “64000” goes beyond.', () => readUniverses('64000')],
  ['not-understood: The run 9-3 ends before it begins.', () => readUniverses('9-3')],
  ['not-understood: “sacn12” names no universe on the wire.', () => readWireToken('sacn12')],
  ['not-understood: “xsacn-1” names no universe on the wire.', () => readWireToken('xsacn-1')],
  ['out-of-range: Net 128 is too high', () => readPortAddress('128.0.0')],
  ['out-of-range: Sub-net 16 is too high', () => readPortAddress('1.16.0')],
  ['out-of-range: Universe 16 is too high', () => readPortAddress('1.1.16')],
  ['not-understood: “1.2.3.4” is not an Art-Net address', () => readPortAddress('1.2.3.4')],
  ['not-understood: “12a” is not an Art-Net address', () => readPortAddress('12a')],
  ['not-understood: “a12” is not an Art-Net address', () => readPortAddress('a12')],
  ['out-of-range: 32768 is not an Art-Net universe: counted from 0 they run to 32767', () => readPortAddress('32768')],
  [
    'out-of-range: 32769 is not an Art-Net universe: counted from 1 they run to 32768',
    () => readPortAddress('32769', 1),
  ],
  ['out-of-range: 0 is not a channel.', () => dipSwitches(0, DIP_USUAL)],
  ['out-of-range: 513 is not a channel.', () => dipSwitches(513, DIP_USUAL)],
  ['out-of-range: 2.5 is not a channel.', () => dipSwitches(2.5, DIP_USUAL)],
  [
    'not-possible: Channel 512 cannot be set with nine switches that count from 1.',
    () => dipSwitches(512, { ...DIP_USUAL, base: 1 }),
  ],
])('%s', (sentence, read) => {
  expect(why(read()).startsWith(sentence)).toBe(true);
});

test('the last of each is taken', () => {
  expect(value(readChannel(' 512 '))).toBe(512);
  expect(value(readShowUniverse('u63999'))).toBe(63_999);
  expect(value(readPortAddress(' 32767 '))).toBe(32_767);
  expect(value(readPortAddress('32768', 1))).toBe(32_767);
  expect(value(readUniverses('63999'))).toEqual([63_999]);
  expect(value(fromAbsolute(1))).toEqual({ universe: 1, channel: 1 });
  expect(value(fromAbsolute(0, 0))).toEqual({ universe: 1, channel: 1 });
  expect([lastWireNumber('sacn'), lastWireNumber('artnet')]).toEqual([63_999, 32_767]);
});

test('a lamp may have no address, in the words that people use for that', () => {
  for (const text of ['', ' none ', 'No address', '0', '0/0', '-', '–', '—'])
    expect(value(readLampAddress(text))).toEqual({ universe: 0, channel: 0 });
  for (const text of ['none of it', '3/0', 'x0']) expect(readLampAddress(text).ok).toBe(false);
  expect(value(readLampAddress('3/47'))).toEqual({ universe: 3, channel: 47 });
  expect(isAddressed({ universe: 0, channel: 0 })).toBe(false);
  expect(isAddressed({ universe: 3, channel: 1 })).toBe(true);
  expect(formatAddress({ universe: 0, channel: 0 })).toBe('no address');
  expect(formatAddress({ universe: 3, channel: 47 })).toBe('3/47');
});

test('ranges and wires are written as they are read', () => {
  expect(formatRange({ universe: 3, from: 7, to: 7 })).toBe('3/7');
  expect(formatRange({ universe: 3, from: 7, to: 9 })).toBe('3/7–9');
  expect(formatWire({ protocol: 'sacn', number: 12 })).toBe('sACN 12');
  expect(formatWire({ protocol: 'artnet', number: 12 })).toBe(`Art-Net ${formatPortAddress(12)}`);
  expect(formatWireFully({ protocol: 'sacn', number: 12 })).toBe('sACN 12, counted from 1');
  expect(formatWireFully({ protocol: 'artnet', number: 12 })).not.toContain('counted from 1');
  expect([protocolName('sacn'), protocolName('artnet')]).toEqual(['sACN', 'Art-Net']);
});

describe('lists of universes', () => {
  test('are written in runs, each once, rising', () => {
    expect(formatUniverses([10, 2, 1, 3, 3, 12])).toBe('1-3, 10, 12');
    expect(formatUniverses([7])).toBe('7');
    expect(formatUniverses([])).toBe('');
    expect(runsOf([1, 2, 4, 5, 6])).toEqual([
      [1, 2],
      [4, 6],
    ]);
  });

  test('are read with commas, spaces and dashes of any kind', () => {
    expect(value(readUniverses(' 12 ;3 - 5,,1 – 2  '))).toEqual([1, 2, 3, 4, 5, 12]);
    expect(value(readUniverses('5-5, 4 -6'))).toEqual([4, 5, 6]);
    expect(value(readUniverses(''))).toEqual([]);
  });

  test('runs of sACN universes are joined where they touch or overlap', () => {
    expect(value(readSacnRuns('41, 1-4, 5-6, 3-5, 8'))).toEqual([
      [1, 6],
      [8, 8],
      [41, 41],
    ]);
    expect(value(readSacnRuns('10-20, 12-13'))).toEqual([[10, 20]]);
    expect(why(readSacnRuns(' '))).toMatch(/^nothing: Say which sACN universes/);
    expect(readSacnRuns('x').ok).toBe(false);
  });
});
