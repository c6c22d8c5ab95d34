import fc from 'fast-check';
import { nightFerry } from '../../whole/demo';
import { Patch, slotsOf } from '../patch';
import type { PixelRun } from '../../show/records';
import { absoluteEnds, channelsPerPixel, layRun, layRuns, modeOfRun, pixelAccount } from '.';

const { run, machine: machines } = nightFerry();
/** The cords round the funnel, all on one controller */
const demoRuns = run.slice(0, 4);
const machine = machines.filter(({ id }) => id === demoRuns[0]!.machineId);
const base = demoRuns[0]!;
const anyRun = fc
  .record({
    count: fc.integer({ min: 1, max: 900 }),
    order: fc.constantFrom('RGB', 'GRB', 'RGBW', 'W', 'RGBWA'),
    bits: fc.constantFrom(8 as const, 16 as const),
    perUniverse: fc.constantFrom(510 as const, 512 as const),
    whole: fc.boolean(),
    reversed: fc.boolean(),
    nulls: fc.nat(5),
    nullsSent: fc.boolean(),
  })
  .map((parts): PixelRun => ({
    ...base,
    ...parts,
    machineId: null,
    output: null,
    start: { kind: 'at', universe: 5, channel: 1 },
  }));

test('every channel has one slot, in order, within what a universe carries; whole pixels are never cut', () => {
  fc.assert(
    fc.property(anyRun, fc.integer({ min: 1, max: 512 }), (run, channel) => {
      const { segments, channels } = layRun(run, { universe: 5, channel });
      const each = channelsPerPixel(run);
      expect(segments.reduce((sum, { length }) => sum + length, 0)).toBe(channels);
      segments.reduce((next, { first, length, channel: start, universe }, i) => {
        expect(first).toBe(next);
        expect(start + length - 1).toBeLessThanOrEqual(run.perUniverse);
        if (run.whole) expect(length % each).toBe(0);
        if (i > 0) expect([start, universe]).toEqual([1, segments[i - 1]!.universe + 1]);
        return next + length;
      }, 1);
    }),
  );
});

test('each pixel of a patched run has its colours at slots of its own; reversed runs count from the end', () => {
  fc.assert(
    fc.property(anyRun, (run) => {
      const patched = new Patch([], [], [run]).lamp(run.id)!;
      const seen = patched.mode.channels.flatMap((channel) =>
        slotsOf(patched, channel).map(({ universe, channel: at }) => universe * 512 + at),
      );
      expect(new Set(seen).size).toBe(run.count * channelsPerPixel(run));
      expect(patched.mode.channels[0]!.cell).toBe(run.reversed ? run.count : 1);
    }),
    { numRuns: 30 },
  );
});

test('runs follow one another, begin at an address, or at their controller’s first universe', () => {
  const placed = layRuns(demoRuns, machine).map(({ segments }) =>
    segments.map(({ universe, channel, length }) => [universe, channel, length]),
  );
  expect(placed).toEqual([[[13, 1, 216]], [[13, 217, 90]], [[13, 307, 90]], [[13, 397, 96]]]);
  const lost = { ...base, machineId: null };
  expect(layRuns([lost], machine)[0]).toMatchObject({
    segments: [],
    fault: expect.stringContaining('no controller') as string,
  });
});

test('510 and 512, kept whole and cut: the same 171 pixels', () => {
  const ends = (perUniverse: 510 | 512, whole: boolean) =>
    layRun({ ...base, count: 171, perUniverse, whole }, { universe: 1, channel: 1 }).segments.map(
      ({ length }) => length,
    );
  expect([ends(510, true), ends(512, true), ends(510, false), ends(512, false)]).toEqual([
    [510, 3],
    [510, 3],
    [510, 3],
    [512, 1],
  ]);
});

test('the account: addresses in either base, what outputs drive, and what is too long', () => {
  const account = pixelAccount(demoRuns, machine);
  expect(account).toMatchObject({ pixels: 156, channels: 492, faults: [] });
  expect(absoluteEnds(account.runs[1]!, 1)).toEqual([12 * 512 + 217, 12 * 512 + 306]);
  expect(absoluteEnds(account.runs[1]!, 0)).toEqual([12 * 512 + 216, 12 * 512 + 305]);
  const [controller] = account.controllers;
  expect(controller).toMatchObject({ firstUniverse: 13, lastUniverse: 13 });
  expect(controller!.outputs[0]).toMatchObject({
    output: 1,
    start: { universe: 13, channel: 1 },
    channels: 219,
    pixels: 73,
  });
  const long = pixelAccount([{ ...base, count: 700 }], machine);
  expect(long.faults.map(({ sentence }) => sentence)).toEqual([
    'Output 1 of Funnel cord driver drives 450 channels; 2103 are planned, 1653 too many.',
    'Funnel cord driver listens to universes 13 to 13; its runs use 13 to 17.',
  ]);
});

test('sixteen bits have a fine byte; null pixels that are sent push the others on', () => {
  const mode = modeOfRun({ ...base, count: 2, bits: 16, nulls: 1, nullsSent: true });
  expect(mode.channels[0]).toMatchObject({ attribute: 'ColorAdd_R', offsets: [7, 8], highlight: 65535 });
});
