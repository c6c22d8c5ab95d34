/** Where the pixels of a run lie: universes and channels, whole or cut, one run after the other. */
import { SHOW_UNIVERSE_LAST, type SlotAddress } from '../../base/address';
import type { FixtureChannel, FixtureMode, Machine, PixelRun } from '../../show/records';

/** A stretch of a run within one universe. */
export interface RunSegment extends SlotAddress {
  readonly length: number;
  /** Offset within the run of the segment's first slot, from 1 */
  readonly first: number;
}

export interface PlacedRun {
  readonly run: PixelRun;
  readonly segments: readonly RunSegment[];
  /** Channels that the run takes, null pixels included if they are sent */
  readonly channels: number;
  /** The first address after the run that may be used */
  readonly next: SlotAddress;
  /** A sentence if the run cannot be placed as it is planned; it then has no segments or too few. */
  readonly fault: string | undefined;
}

export const channelsPerPixel = ({ order, bits }: Pick<PixelRun, 'order' | 'bits'>): number =>
  order.length * (bits / 8);

/** Pixels that take channels. */
const sentPixels = ({ count, nulls, nullsSent }: PixelRun): number => count + (nullsSent ? nulls : 0);

/** Lays a run's channels from `start` on. */
export function layRun(run: PixelRun, start: SlotAddress): PlacedRun {
  const each = channelsPerPixel(run);
  const total = sentPixels(run) * each;
  const segments: RunSegment[] = [];
  let { universe, channel } = start;
  let laid = 0;
  while (laid < total) {
    const room = run.perUniverse - channel + 1;
    const usable = run.whole ? Math.floor(room / each) * each : room;
    const length = Math.min(Math.max(0, usable), total - laid);
    if (length > 0) segments.push({ universe, channel, length, first: laid + 1 });
    laid += length;
    if (laid < total) {
      universe += 1;
      channel = 1;
      if (universe > SHOW_UNIVERSE_LAST)
        return {
          run,
          segments,
          channels: total,
          next: start,
          fault: `Run ${run.number} ${run.name} goes beyond universe ${SHOW_UNIVERSE_LAST}, the last one.`,
        };
    } else channel += length;
  }
  const next = channel > run.perUniverse ? { universe: universe + 1, channel: 1 } : { universe, channel };
  return { run, segments, channels: total, next, fault: undefined };
}

/** Lays all runs, each after the one before it where it is planned so; the order is that of their numbers. */
export function layRuns(runs: readonly PixelRun[], machines: readonly Machine[]): PlacedRun[] {
  const controllers = new Map(machines.map((machine) => [machine.id, machine]));
  let next: SlotAddress = { universe: 1, channel: 1 };
  return [...runs]
    .sort((a, b) => a.number - b.number)
    .map((run) => {
      const controller = run.machineId === null ? undefined : controllers.get(run.machineId);
      let start = next;
      if (run.start.kind === 'at') start = { universe: run.start.universe, channel: run.start.channel };
      if (run.start.kind === 'controller') {
        const first = controller?.controller?.firstUniverse;
        if (first === undefined)
          return {
            run,
            segments: [],
            channels: sentPixels(run) * channelsPerPixel(run),
            next,
            fault: `Run ${run.number} ${run.name} begins at its controller’s first universe, but it has no controller that says one.`,
          };
        start = { universe: first, channel: 1 };
      }
      const placed = layRun(run, start);
      next = placed.next;
      return placed;
    });
}

const ATTRIBUTES: Readonly<Record<string, string>> = {
  R: 'ColorAdd_R',
  G: 'ColorAdd_G',
  B: 'ColorAdd_B',
  W: 'ColorAdd_W',
  A: 'ColorAdd_RY',
};

/** The run as a fixture mode whose cells are its pixels; offsets run through the whole run and may pass 512. */
export function modeOfRun(run: PixelRun): FixtureMode {
  const bytes = run.bits / 8;
  const each = channelsPerPixel(run);
  const skipped = run.nullsSent ? run.nulls : 0;
  const lit = 2 ** run.bits - 1;
  const channels: FixtureChannel[] = [];
  for (let i = 0; i < run.count; i += 1) {
    const cell = run.reversed ? run.count - i : i + 1;
    [...run.order].forEach((letter, colour) =>
      channels.push({
        attribute: ATTRIBUTES[letter]!,
        offsets: Array.from({ length: bytes }, (_, byte) => (skipped + i) * each + colour * bytes + byte + 1),
        default: 0,
        highlight: lit,
        cell,
      }),
    );
  }
  return { name: `${run.count} ${run.order}${run.bits === 16 ? ' 16 bit' : ''}`, channels };
}
