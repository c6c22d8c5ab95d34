/** What runs of pixels come to: channels, universes, addresses, and what each controller and output has to drive. */
import { countOf } from '../../show/edit';
import { type NumberingBase, type SlotAddress, toAbsolute } from '../../base/address';
import type { Machine, PixelRun } from '../../show/records';
import { channelsPerPixel, layRuns, type PlacedRun } from './layout';

export interface RunAccount {
  readonly run: PixelRun;
  readonly channels: number;
  readonly universes: readonly number[];
  /** Undefined if the run could not be placed */
  readonly first: SlotAddress | undefined;
  readonly last: SlotAddress | undefined;
  readonly controller: string;
}

export interface OutputAccount {
  readonly output: number;
  readonly runs: readonly PixelRun[];
  readonly start: SlotAddress | undefined;
  /** Channels that its pixels need, null pixels included */
  readonly channels: number;
  readonly pixels: number;
}

export interface ControllerAccount {
  readonly machine: Machine;
  readonly firstUniverse: number | undefined;
  readonly lastUniverse: number | undefined;
  readonly outputs: readonly OutputAccount[];
}

export interface PixelAccount {
  readonly runs: readonly RunAccount[];
  readonly controllers: readonly ControllerAccount[];
  /** What does not fit, in sentences */
  readonly faults: readonly { readonly subject: string; readonly sentence: string }[];
  readonly pixels: number;
  readonly channels: number;
}

function accountOf({ run, segments, channels }: PlacedRun, machines: readonly Machine[]): RunAccount {
  const first = segments[0];
  const last = segments[segments.length - 1];
  return {
    run,
    channels,
    universes: segments.map(({ universe }) => universe),
    first: first && { universe: first.universe, channel: first.channel },
    last: last && { universe: last.universe, channel: last.channel + last.length - 1 },
    controller: machines.find(({ id }) => id === run.machineId)?.name ?? '',
  };
}

function controllerOf(machine: Machine, placed: readonly PlacedRun[]): ControllerAccount {
  const here = placed.filter(({ run }) => run.machineId === machine.id);
  const universes = here.flatMap(({ segments }) => segments.map(({ universe }) => universe));
  const numbers = [...new Set(here.flatMap(({ run }) => run.output ?? []))].sort((a, b) => a - b);
  return {
    machine,
    firstUniverse: universes.length > 0 ? universes.reduce((a, b) => Math.min(a, b)) : undefined,
    lastUniverse: universes.length > 0 ? universes.reduce((a, b) => Math.max(a, b)) : undefined,
    outputs: numbers.map((output) => {
      const runs = here.filter(({ run }) => run.output === output);
      const start = runs[0]?.segments[0];
      return {
        output,
        runs: runs.map(({ run }) => run),
        start: start && { universe: start.universe, channel: start.channel },
        channels: runs.reduce((sum, { run }) => sum + (run.count + run.nulls) * channelsPerPixel(run), 0),
        pixels: runs.reduce((sum, { run }) => sum + run.count + run.nulls, 0),
      };
    }),
  };
}

function* faultsOf({ machine, firstUniverse, lastUniverse, outputs }: ControllerAccount): Generator<string> {
  const limits = machine.controller;
  if (!limits) {
    yield `${machine.name} drives pixels, but its limits are not known: say its first universe and what an output drives.`;
    return;
  }
  for (const { output, channels } of outputs) {
    if (output > limits.outputs)
      yield `${machine.name} has ${limits.outputs} outputs; a run is planned on output ${output}.`;
    if (channels > limits.channelsPerOutput)
      yield `Output ${output} of ${machine.name} drives ${countOf(limits.channelsPerOutput, 'channel')}; ${channels} are planned, ${channels - limits.channelsPerOutput} too many.`;
  }
  const end = limits.firstUniverse + limits.universes - 1;
  if (firstUniverse !== undefined && lastUniverse !== undefined) {
    if (firstUniverse < limits.firstUniverse || lastUniverse > end)
      yield `${machine.name} listens to universes ${limits.firstUniverse} to ${end}; its runs use ${firstUniverse} to ${lastUniverse}.`;
  }
}

export function pixelAccount(runs: readonly PixelRun[], machines: readonly Machine[]): PixelAccount {
  const placed = layRuns(runs, machines);
  const controllers = machines
    .filter((machine) => machine.controller !== null || runs.some(({ machineId }) => machineId === machine.id))
    .map((machine) => controllerOf(machine, placed));
  return {
    runs: placed.map((one) => accountOf(one, machines)),
    controllers,
    faults: [
      ...placed.flatMap(({ run, fault }) => (fault === undefined ? [] : [{ subject: run.id, sentence: fault }])),
      ...controllers.flatMap((one) => [...faultsOf(one)].map((sentence) => ({ subject: one.machine.id, sentence }))),
    ],
    pixels: placed.reduce((sum, { run }) => sum + run.count, 0),
    channels: placed.reduce((sum, { channels }) => sum + channels, 0),
  };
}

/** First and last channel of a run, counted through all universes from `base`. */
export const absoluteEnds = ({ first, last }: RunAccount, base: NumberingBase): readonly [number, number] | undefined =>
  first && last && [toAbsolute(first, base), toAbsolute(last, base)];
