/** Universes as the Listen area names them: `u3` for the show's own, `sacn-77` for what is not in it. */
import { useMemo } from 'react';
import { formatWireToken, fromWireKey, readShowUniverse, readWireToken, wireKey } from '@taxiarch/core/base/address';
import type { LiveReport } from '@taxiarch/core/whole/contract';
import type { UniverseReport } from '@taxiarch/core/signal/stream';
import { pennantOf, type Sender } from '@taxiarch/core/network/flow';
import type { Pennant, ShowRecords, Universe } from '@taxiarch/core/show/records';

export const tokenOf = ({ key, show }: Pick<UniverseReport, 'key' | 'show'>): string =>
  show === null ? formatWireToken(fromWireKey(key)) : `u${show}`;

export interface NamedUniverse {
  readonly key: number;
  readonly plan: Universe | undefined;
}

/** The universe that a token names; undefined if there is none such. */
export function findUniverse(token: string, records: ShowRecords): NamedUniverse | undefined {
  const wire = readWireToken(token);
  if (wire.ok) return { key: wireKey(wire.value), plan: undefined };
  const number = readShowUniverse(token);
  const plan = number.ok ? records.universe.find((one) => one.number === number.value) : undefined;
  return plan && { key: wireKey({ protocol: plan.protocol, number: plan.wire }), plan };
}

export const reportOf = (live: LiveReport | undefined, key: number | undefined): UniverseReport | undefined =>
  live?.universes.find((one) => one.key === key);

/** The pennant of each stream of a universe, by mark; the same object as long as nothing about them changes. */
export function usePennants(
  report: UniverseReport | undefined,
  senders: readonly Sender[],
): ReadonlyMap<number, Pennant> {
  const streams = report?.streams ?? [];
  const name = streams.map(({ mark, name: who, address, own }) => `${mark} ${who} ${address} ${own}`).join();
  return useMemo(
    () => new Map(streams.map((stream) => [stream.mark, pennantOf(stream, senders)])),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the name says all that matters of the streams
    [name, senders],
  );
}
