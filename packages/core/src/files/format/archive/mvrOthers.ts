/** What is no lamp and goes out as a fixture: runs of pixels, and machines of the network (MVR 1.6). */
import type { SlotAddress } from '../../../base/address';
import { modeOfRun } from '../../../rig/pixel';
import type { Entries } from './zip';
import {
  checkRecord,
  PLAIN_LAMP,
  PLAIN_TYPE,
  type FixtureType,
  type Lamp,
  type Machine,
  type PixelRun,
} from '../../../show/records';

/** A run of pixels as a fixture: each universe that it reaches into is an address block of its own. */
export function outgoingRun(
  run: PixelRun,
  segments: readonly { universe: number; channel: number; first: number; length: number }[],
): { lamp: Lamp; type: FixtureType; addresses: SlotAddress[] } {
  const mode = modeOfRun(run);
  const blockAt = (offset: number) =>
    segments.findIndex(({ first, length }) => first <= offset && offset < first + length);
  const channels = mode.channels.flatMap((channel) => {
    const block = blockAt(channel.offsets[0]!);
    if (block < 0 || channel.offsets.some((offset) => blockAt(offset) !== block)) return [];
    const offsets = channel.offsets.map((offset) => offset - segments[block]!.first + 1);
    return [{ ...channel, offsets, ...(block > 0 && { block: block + 1 }) }];
  });
  const { id, number, name, placeId, from, to } = run;
  const middle = (a: number, b: number) => Math.round(((a + b) / 2) * 1000) / 1000;
  const typeId = `run ${id}`;
  return {
    type: {
      ...PLAIN_TYPE,
      id: typeId,
      rev: 0,
      maker: 'Taxiarch',
      name: `Pixels ${number} ${name}`.slice(0, 120),
      kind: 'strip',
      modes: [{ ...mode, channels }],
    },
    lamp: {
      ...PLAIN_LAMP,
      ...{ id, rev: 0, number, name, typeId, mode: mode.name, universe: 0, channel: 0, placeId },
      ...{ x: middle(from.x, to.x), y: middle(from.y, to.y), z: middle(from.z, to.z) },
    },
    addresses: segments.map(({ universe, channel }) => ({ universe, channel })),
  };
}

/** Entry of a scene of ours with its runs of pixels, which MVR has no place for. */
export const RUNS = 'taxiarch-runs.json';

export const runsEntry = (runs: readonly PixelRun[]): Record<string, Uint8Array> =>
  runs.length === 0 ? {} : { [RUNS]: new TextEncoder().encode(JSON.stringify(runs)) };

/** The runs that a scene of ours holds; what is not one is left out. */
export function runsIn(entries: Entries): PixelRun[] {
  const bytes = entries[RUNS];
  if (!bytes) return [];
  try {
    const all: unknown = JSON.parse(new TextDecoder().decode(bytes));
    return Array.isArray(all) ? all.filter((one): one is PixelRun => checkRecord('run', one).ok) : [];
  } catch {
    return [];
  }
}

export const outgoingMachine = (machine: Machine, number: number): Lamp => ({
  ...PLAIN_LAMP,
  ...{ id: machine.id, rev: 0, number, name: machine.name, typeId: '', mode: 'Network' },
  ...{ universe: 0, channel: 0, placeId: machine.placeId },
});

/** Numbers of machines begin here, beyond those of lamps. */
export const MACHINES_FROM = 900_001;
