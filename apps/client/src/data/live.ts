/** What is on the wire now: reports twice a second, and levels of the universes that a screen looks at. */
import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import useSWR from 'swr';
import useSWRSubscription, { type SWRSubscription } from 'swr/subscription';
import { NOBODY } from '@taxiarch/core/merge';
import type { ContendersFrame, InterfacesReply, LiveReport, Settings } from '@taxiarch/core/contract';
import { get } from './api';
import { feed } from './feed';

const subscribeLive: SWRSubscription<string, LiveReport, Error> = (_, { next }) => {
  if (feed.lastReport) next(null, feed.lastReport);
  return feed.live.on((report) => next(null, report));
};

/** The last report; undefined until one has come. */
export const useLive = (): LiveReport | undefined => useSWRSubscription('live', subscribeLive).data;

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

/** Levels of some slots (0-based) of a universe, for text; slower than a canvas and quick enough to read. */
export function useSlots(key: number | undefined, slots: readonly number[]): readonly (SlotNow | undefined)[] {
  const [now, setNow] = useState<readonly (SlotNow | undefined)[]>([]);
  const wanted = useRef(slots);
  useEffect(() => {
    wanted.current = slots;
  });
  const which = slots.join();
  useEffect(() => {
    if (key === undefined) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let shown = 0;
    const stop = feed.watch(key, (frame) => {
      const show = () => {
        timer = undefined;
        shown = performance.now();
        setNow(
          wanted.current.map((slot) => {
            const owner = frame.owners[slot]!;
            return { value: frame.values[slot]!, owner: owner === NOBODY ? null : owner };
          }),
        );
      };
      if (timer !== undefined) clearTimeout(timer);
      timer = setTimeout(show, Math.max(0, shown + TEXT_MS - performance.now()));
    });
    return () => {
      clearTimeout(timer);
      stop();
      setNow([]);
    };
  }, [key, which]);
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
