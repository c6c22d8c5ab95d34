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

describe('laid one after the other', () => {
  const at = (universe: number, channel: number) => ({ kind: 'at' as const, universe, channel });
  const after = { kind: 'after' as const };
  const three = (number: number, over: Partial<PixelRun>): PixelRun => ({
    ...base,
    ...{ id: `run-${number}`, number, count: 10, order: 'RGB', bits: 8, perUniverse: 510, nulls: 0, machineId: null },
    ...over,
  });
  const starts = (runs: readonly PixelRun[]) =>
    layRuns(runs, machine).map(({ run: { number }, segments: [first] }) => [number, first?.universe, first?.channel]);

  test('in the order of their numbers, whatever the order in which they stand', () => {
    const runs = [three(3, { start: after }), three(1, { start: at(2, 11) }), three(2, { start: after })];
    expect(starts(runs)).toEqual([
      [1, 2, 11],
      [2, 2, 41],
      [3, 2, 71],
    ]);
  });

  test('the first begins at 1/1; one that fills its universe is followed in the next', () => {
    const runs = [three(1, { start: after, count: 170 }), three(2, { start: after })];
    expect(starts(runs)).toEqual([
      [1, 1, 1],
      [2, 2, 1],
    ]);
  });

  test('null pixels push the next run on only where they are sent', () => {
    const nulls = (nullsSent: boolean) =>
      starts([three(1, { start: after, nulls: 4, nullsSent }), three(2, { start: after })]);
    expect([nulls(false)[1], nulls(true)[1]]).toEqual([
      [2, 1, 31],
      [2, 1, 43],
    ]);
  });

  test('beyond the last universe it says so, and keeps what fits', () => {
    const last = layRun(three(7, { name: 'Mast', count: 200 }), { universe: 63_999, channel: 1 });
    expect(last.segments).toEqual([{ universe: 63_999, channel: 1, length: 510, first: 1 }]);
    expect(last.fault).toBe('Run 7 Mast goes beyond universe 63999, the last one.');
    expect(layRun(three(7, { count: 170 }), { universe: 63_999, channel: 1 }).fault).toBeUndefined();
  });

  test('one without a controller to begin at says so, with its channels, and the others go on', () => {
    const runs = [three(1, { name: 'Lost', start: { kind: 'controller' } }), three(2, { start: after })];
    const [lost, next] = layRuns(runs, machine);
    expect(lost).toMatchObject({
      channels: 30,
      segments: [],
      fault: 'Run 1 Lost begins at its controller’s first universe, but it has no controller that says one.',
    });
    expect(next!.segments[0]).toMatchObject({ universe: 1, channel: 1 });
  });
});

describe('the account of controllers', () => {
  const [driver] = machine as [(typeof machine)[number]];
  const limits = driver.controller!;
  const faults = (runs: readonly PixelRun[], controller: typeof driver.controller) =>
    pixelAccount(runs, [{ ...driver, controller }]).faults;
  const sentences = (...given: Parameters<typeof faults>) => faults(...given).map(({ sentence }) => sentence);

  test('one whose limits nobody knows is asked for them; one with none and no runs is left out', () => {
    expect(faults([{ ...base, start: { kind: 'at', universe: 13, channel: 1 } }], null)).toEqual([
      {
        subject: driver.id,
        sentence:
          'Funnel cord driver drives pixels, but its limits are not known: say its first universe and what an output drives.',
      },
    ]);
    expect(pixelAccount([], [{ ...driver, controller: null }]).controllers).toEqual([]);
    expect(pixelAccount([], [driver]).controllers).toMatchObject([
      { firstUniverse: undefined, lastUniverse: undefined, outputs: [] },
    ]);
  });

  test('an output that it does not have, and the last that it has', () => {
    const on = (output: number) => [{ ...base, output }];
    expect(sentences(on(limits.outputs), limits)).toEqual([]);
    expect(sentences(on(limits.outputs + 1), limits)).toEqual([
      `Funnel cord driver has ${limits.outputs} outputs; a run is planned on output ${limits.outputs + 1}.`,
    ]);
  });

  test('channels up to what an output drives fit, one more does not', () => {
    const { channels } = pixelAccount([base], [driver]).controllers[0]!.outputs[0]!;
    expect(sentences([base], { ...limits, channelsPerOutput: channels })).toEqual([]);
    expect(sentences([base], { ...limits, channelsPerOutput: channels - 1 })).toEqual([
      `Output 1 of Funnel cord driver drives ${channels - 1} channels; ${channels} are planned, 1 too many.`,
    ]);
  });

  test('runs before and beyond the universes that it takes', () => {
    const begin = (universe: number) => [{ ...base, start: { kind: 'at' as const, universe, channel: 1 } }];
    const { firstUniverse, universes } = limits;
    const end = firstUniverse + universes - 1;
    expect(sentences(begin(end), limits)).toEqual([]);
    expect(sentences(begin(firstUniverse - 1), limits)).toEqual([
      `Funnel cord driver listens to universes ${firstUniverse} to ${end}; its runs use ${firstUniverse - 1} to ${firstUniverse - 1}.`,
    ]);
    expect(sentences(begin(end + 1), limits)).toHaveLength(1);
  });

  test('outputs in their order, each with its own runs; a run elsewhere is no part of it', () => {
    const runs = [
      { ...base, id: 'a', number: 1, output: 2 },
      { ...base, id: 'b', number: 2, output: 1 },
      { ...base, id: 'c', number: 3, output: 1 },
      { ...base, id: 'd', number: 4, machineId: 'another' },
    ];
    const { controllers, runs: all } = pixelAccount(runs, [driver, { ...driver, id: 'another', name: 'Another' }]);
    expect(
      controllers.map(({ outputs }) => outputs.map(({ output, runs: [...its] }) => [output, its.map(({ id }) => id)])),
    ).toEqual([
      [
        [1, ['b', 'c']],
        [2, ['a']],
      ],
      [[base.output, ['d']]],
    ]);
    expect(all.map(({ controller }) => controller)).toEqual([
      'Funnel cord driver',
      'Funnel cord driver',
      'Funnel cord driver',
      'Another',
    ]);
    expect(pixelAccount([{ ...base, machineId: null }], [driver]).runs[0]!.controller).toBe('');
  });

  test('a run that could not be placed has no ends, and its fault stands under its id', () => {
    const lost = { ...base, machineId: null, start: { kind: 'controller' as const } };
    const account = pixelAccount([lost], [driver]);
    expect([account.runs[0]!.first, absoluteEnds(account.runs[0]!, 1)]).toEqual([undefined, undefined]);
    expect(account.faults).toMatchObject([{ subject: lost.id }]);
  });
});

test('a run of pixels as a mode: its name, and each pixel’s cell from either end', () => {
  const run = { ...base, count: 3, order: 'GRB' as const, bits: 8 as const, nulls: 2, nullsSent: true, reversed: true };
  const mode = modeOfRun(run);
  expect(mode.name).toBe('3 GRB');
  expect(mode.channels.map(({ cell }) => cell)).toEqual([3, 3, 3, 2, 2, 2, 1, 1, 1]);
  expect(mode.channels[0]).toMatchObject({ attribute: 'ColorAdd_G', offsets: [7], default: 0, highlight: 255 });
  expect(modeOfRun({ ...run, bits: 16 }).name).toBe('3 GRB 16 bit');
  expect(modeOfRun({ ...run, nullsSent: false }).channels[0]!.offsets).toEqual([1]);
});
