/** What is on the wire now: reports twice a second, and levels of the universes that a screen looks at. */
import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import useSWR from 'swr';
import useSWRSubscription, { type SWRSubscription } from 'swr/subscription';
import { wireKey, type SlotAddress } from '@taxiarch/core/address';
import { NOBODY } from '@taxiarch/core/merge';
import type { ContendersFrame, InterfacesReply, LiveReport, Settings, UniverseFrame } from '@taxiarch/core/contract';
import type { Universe } from '@taxiarch/core/show';
import { get } from './api';
import { feed } from './feed';

const subscribeLive: SWRSubscription<string, LiveReport, Error> = (_, { next }) => {
  if (feed.lastReport) next(null, feed.lastReport);
  return feed.live.on((report) => next(null, report));
};

/** The last report; undefined until one has come. */
export const useLive = (): LiveReport | undefined => useSWRSubscription('live', subscribeLive).data;

/** Whether Taxiarch may send; draws again only when that changes, and not with every report. */
export const useHot = (): boolean =>
  useSyncExternalStore(
    (changed) => feed.live.on(changed),
    () => feed.lastReport?.output.hot ?? false,
  );

export const useConnected = (): boolean =>
  useSyncExternalStore(
    (changed) => feed.connection.on(changed),
    () => feed.connected,
  );

export interface SlotNow {
  readonly value: number;
  /** Mark of the stream that owns it, or null */
  readonly owner: number | null;
}

/** At most this often a page of text is drawn anew with levels. */
const TEXT_MS = 100;

/** A slot on the wire: its universe's key and its place from 0; no key if its universe is not in the show. */
export interface WireSlot {
  readonly key: number | undefined;
  readonly slot: number;
}

/** Where addresses of the show are found on the wire. */
export const onWire = (addresses: readonly SlotAddress[], universes: readonly Universe[]): WireSlot[] =>
  addresses.map(({ universe, channel }) => {
    const plan = universes.find((one) => one.number === universe);
    return { key: plan && wireKey({ protocol: plan.protocol, number: plan.wire }), slot: channel - 1 };
  });

/** Levels of some slots, of one or several universes, for text; slower than a canvas and quick enough to read. */
export function useSlots(slots: readonly WireSlot[]): readonly (SlotNow | undefined)[] {
  const [now, setNow] = useState<readonly (SlotNow | undefined)[]>([]);
  const wanted = useRef(slots);
  useEffect(() => {
    wanted.current = slots;
  });
  const which = slots.map(({ key, slot }) => `${key}/${slot}`).join();
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    let shown = 0;
    const frames = new Map<number, UniverseFrame>();
    const show = () => {
      timer = undefined;
      shown = performance.now();
      setNow(
        wanted.current.map(({ key, slot }) => {
          const frame = key === undefined ? undefined : frames.get(key);
          if (!frame) return undefined;
          const owner = frame.owners[slot]!;
          return { value: frame.values[slot]!, owner: owner === NOBODY ? null : owner };
        }),
      );
    };
    const keys = new Set(wanted.current.flatMap(({ key }) => key ?? []));
    const stops = [...keys].map((key) =>
      feed.watch(key, (frame) => {
        frames.set(key, frame);
        timer ??= setTimeout(show, Math.max(0, shown + TEXT_MS - performance.now()));
      }),
    );
    return () => {
      clearTimeout(timer);
      stops.forEach((stop) => stop());
      setNow([]);
    };
  }, [which]);
  return now;
}

/** What every stream says about one slot (0-based), while the page is open. */
export function useContenders(key: number | undefined, slot: number | undefined): ContendersFrame | undefined {
  const [frame, setFrame] = useState<ContendersFrame>();
  useEffect(() => {
    if (key === undefined || slot === undefined) return;
    feed.inspect({ key, slot });
    const stop = feed.contenders.on((next) => next.key === key && next.slot === slot && setFrame(next));
    return () => {
      stop();
      feed.inspect(null);
      setFrame(undefined);
    };
  }, [key, slot]);
  return frame;
}

export const useSettings = () => useSWR<Settings>('/api/settings', get);
export const useInterfaces = () => useSWR<InterfacesReply>('/api/interfaces', get, { refreshInterval: 2000 });
