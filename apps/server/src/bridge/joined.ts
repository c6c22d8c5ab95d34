/** The engine's report joined with the plan: every universe planned or heard, with the word that says how it stands. */
import { fromWireKey, wireKey, type Protocol } from '@taxiarch/core/base/address';
import {
  sendersByUniverse,
  sendersOf,
  standingOf,
  universesByWire,
  unrestHere,
  type HeardStream,
  type Unrest,
} from '@taxiarch/core/network/flow';
import type { ShowRecords } from '@taxiarch/core/show/records';
import type { StreamReport, UniverseReport } from '@taxiarch/core/signal/stream';
import type { EngineReport, EngineUniverse } from './engineMessages';

const heardOf = (stream: StreamReport, protocol: Protocol, at: number, here: Unrest): HeardStream => ({
  ...stream,
  protocol,
  age: at - stream.lastSeen,
  here,
});

/** Ports that report a merge, in words, by wire key. */
function mergesOf(nodes: EngineReport['nodes']): ReadonlyMap<number, string> {
  const merges = new Map<number, string>();
  for (const { shortName, address, gone, ports } of nodes)
    for (const { number, direction, disabled, sacn, portAddress, active, merging } of ports)
      if (merging && active && !gone && !disabled && direction === 'out')
        merges.set(
          wireKey({ protocol: sacn ? 'sacn' : 'artnet', number: portAddress }),
          `${shortName || address} port ${number}`,
        );
  return merges;
}

export function universesNow(
  { at, nodes }: Pick<EngineReport, 'at' | 'nodes'>,
  heard: Iterable<EngineUniverse>,
  plan: Pick<ShowRecords, 'universe' | 'machine'>,
): UniverseReport[] {
  const planned = universesByWire(plan.universe);
  const senders = sendersByUniverse(sendersOf(plan.machine));
  const merges = mergesOf(nodes);
  const universes: UniverseReport[] = [];
  const all = [...heard];
  const unrest = unrestHere(all.flatMap(({ streams }) => streams));
  for (const { key, streams } of all) {
    const wire = fromWireKey(key);
    const universe = planned.get(key);
    if (!universe && streams.every((stream) => stream.lost)) continue;
    universes.push({
      key,
      ...wire,
      show: universe?.number ?? null,
      name: universe?.name ?? '',
      ...standingOf(
        universe && (senders.get(universe.number) ?? []),
        streams.map((stream) => heardOf(stream, wire.protocol, at, unrest(stream.address))),
        merges.get(key),
      ),
      streams,
    });
  }
  return universes.sort((a, b) => (a.show ?? Infinity) - (b.show ?? Infinity) || a.key - b.key);
}
