/**
 * The judge of what Taxiarch says: what really leaves each planned port beside what those play in the same seconds who
 * are planned to be there. Read at the panels of the stand-ins, and nothing of it goes through Taxiarch.
 */
import { sendersOf, universesOf } from '@taxiarch/core/network/flow';
import { mainAddress } from '@taxiarch/core/network/ip';
import type { Patch } from '@taxiarch/core/rig/patch';
import type { Machine, ShowRecords } from '@taxiarch/core/show/records';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { BOXES } from '../../../apps/standins/src/boxes';
import type { Leaving } from '../../../apps/standins/src/leaving';
import type { Ship } from './ship';

const SAMPLES = 18;
const APART_MS = 90;
/** So many samples a port may be behind its sender, and so far apart their levels are then */
const BEHIND = 10;
const NEAR = 4;
/** A slot that is otherwise in so many samples is otherwise; a single one may be a frame that is on its way. */
const OTHERWISE = 2;

type Playing = Readonly<Record<string, readonly number[]>>;
/** Ports by id of the stand-in, and what is played by address of the sender, both at one moment */
interface Moment {
  readonly ports: Readonly<Record<string, readonly Leaving[]>>;
  readonly playing: Readonly<Record<string, Playing>>;
}

const BENCH = '127.0.0.1';
/** Where each machine really stands, whatever the plan says of it. */
const addressOf = new Map(nightFerry().machine.map((machine) => [machine.id, mainAddress(machine)]));
const inputs = new Set(
  nightFerry()
    .machine.filter(({ ports }) => ports.some(({ use }) => use === 'in'))
    .map(mainAddress),
);
/** The stand-in of each machine, by the address at which it was shipped */
const boxAt = new Map(BOXES.map(({ id, address }) => [address, id]));

export interface PlannedPort {
  readonly machineId: string;
  readonly number: number;
  readonly universe: number;
}

/** Ports from which the plan wants a universe to leave. */
const portsOf = ({ id, ports, controller }: Machine): PlannedPort[] =>
  controller
    ? Array.from({ length: controller.universes }, (_, i) => ({
        machineId: id,
        number: i + 1,
        universe: controller.firstUniverse + i,
      }))
    : ports.filter(({ use }) => use === 'out').map(({ number, universe }) => ({ machineId: id, number, universe }));

/** Who is planned to send each universe: where they really stand, and those whose inputs carry it. */
function sendersByUniverse({ machine }: ShowRecords): ReadonlyMap<number, ReadonlySet<string>> {
  const by = new Map<number, Set<string>>();
  const add = (universe: number, address: string) => by.set(universe, (by.get(universe) ?? new Set()).add(address));
  for (const sender of sendersOf(machine))
    for (const universe of universesOf(sender)) {
      for (const address of sender.addresses) add(universe, address);
      add(universe, addressOf.get(sender.id) ?? '');
    }
  return by;
}

/** By universe, slots of fine bytes: between two samples they may have any level. */
const fineSlots = (patch: Patch, { universe }: ShowRecords): ReadonlyMap<number, ReadonlySet<number>> =>
  new Map(
    universe.map(({ number }) => [
      number,
      new Set(
        patch
          .universe(number)
          .flatMap(({ patched: { lamp, mode, run } }) =>
            run
              ? []
              : mode.channels.flatMap(({ offsets }) => offsets.slice(1).map((offset) => lamp.channel + offset - 2)),
          ),
      ),
    ]),
  );

export interface Seen {
  readonly port: PlannedPort;
  /** Slots (0–511) from which something else leaves than is meant for them */
  readonly otherwise: ReadonlySet<number>;
}

const isOnBench = (address: string): boolean => /^127\.0\.0\.(2[12367]|3\d|4\d)$/.test(address);

/** Looks at every planned port for a second and a half. */
export async function look(
  ship: Ship,
  records: ShowRecords,
  patch: Patch,
  /** Whose address another one is meanwhile */
  also: ReadonlyMap<string, string> = new Map(),
): Promise<readonly Seen[]> {
  const fine = fineSlots(patch, records);
  const planned = records.machine.flatMap(portsOf);
  const senders = sendersByUniverse(records);
  const counts = planned.map(() => new Map<number, number>());
  const history: ReadonlyMap<string, Playing>[] = [];
  for (let sample = 0; sample < SAMPLES; sample += 1) {
    const { ports, playing } = await ship.panel<Moment>(BENCH, 'leaving');
    history.unshift(new Map(Object.entries(playing)));
    history.splice(BEHIND);
    if (history.length === BEHIND)
      planned.forEach(({ machineId, number, universe }, i) => {
        const meant = senders.get(universe);
        if (!meant) return;
        const now = ports[boxAt.get(addressOf.get(machineId) ?? '') ?? '']?.[number - 1];
        for (const slot of otherSlots(now, meant, history.map(playedOf(universe)), fine.get(universe), also))
          counts[i]!.set(slot, (counts[i]!.get(slot) ?? 0) + 1);
      });
    await ship.wait(APART_MS);
  }
  return planned.map((port, i) => ({
    port,
    otherwise: new Set([...counts[i]!].filter(([, times]) => times >= OTHERWISE).map(([slot]) => slot)),
  }));
}

/** What each plays on a universe, by address */
const playedOf = (universe: number) => (all: ReadonlyMap<string, Playing>) =>
  new Map([...all].map(([address, plays]) => [address, plays[universe]]));

/** Lowest and highest that a slot had about the moment that fits a port best; it may be some samples behind. */
type Band = (slot: number) => readonly [low: number, high: number];

function bandOf(now: Leaving, its: readonly (readonly number[] | undefined)[]): Band {
  const about = (k: number): Band => {
    const near = its.slice(Math.max(0, k - 1), k + 2);
    return (slot) => {
      const levels = near.map((one) => one?.[slot] ?? 0);
      return [Math.min(...levels) - NEAR, Math.max(...levels) + NEAR];
    };
  };
  const misses = (band: Band) =>
    now.output.filter((level, slot) => level < band(slot)[0] || level > band(slot)[1]).length;
  const bands = its.map((_, k) => about(k));
  const counts = bands.map(misses);
  return bands[counts.indexOf(Math.min(...counts))]!;
}

function* otherSlots(
  now: Leaving | undefined,
  meant: ReadonlySet<string>,
  history: readonly ReadonlyMap<string, readonly number[] | undefined>[],
  fine: ReadonlySet<number> | undefined,
  also: ReadonlyMap<string, string>,
): Generator<number> {
  const bands = new Map<string, Band>();
  for (let slot = 0; slot < 512; slot += 1) {
    const from = now?.from[now.owners[slot]!] ?? '';
    const owner = also.get(from) ?? from;
    const level = now?.output[slot];
    if (!now || !meant.has(owner) || level === undefined) yield slot;
    else if (isOnBench(owner) && !inputs.has(owner) && !fine?.has(slot)) {
      const band =
        bands.get(owner) ??
        bandOf(
          now,
          history.map((plays) => plays.get(owner)),
        );
      bands.set(owner, band);
      const [low, high] = band(slot);
      if (level < low || level > high) yield slot;
    }
  }
}
