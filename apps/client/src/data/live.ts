/** What is on the wire now: reports twice a second, and levels of the universes that a screen looks at. */
import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import useSWR from 'swr';
import { type SlotAddress, wireKey } from '@taxiarch/core/base/address';
import { NOBODY } from '@taxiarch/core/signal/merge';
import type { InterfacesReply, LiveReport, Settings } from '@taxiarch/core/whole/contract';
import type { ContendersFrame, UniverseFrame } from '@taxiarch/core/whole/contract/feed';
import { addressOf } from '@taxiarch/core/whole/contract/paths';
import type { Universe } from '@taxiarch/core/show/records';
import { fetchAddress } from './api';
import { feed } from './feed';

const onLive = (changed: () => void) => feed.live.on(changed);

/** The report of this moment; undefined until one has come, and while the last one is too old to be now. */
export const useLive = (): LiveReport | undefined => useSyncExternalStore(onLive, feed.now);

/** The last report, however old: for what is said to be old. */
export const useLastKnown = (): LiveReport | undefined => useSyncExternalStore(onLive, feed.lastKnown);

/** How old the last report is, ms, a second's step at a time; undefined before the first. */
export function useLiveAge(): number | undefined {
  const [age, setAge] = useState(feed.age);
  useEffect(() => {
    const timer = setInterval(() => setAge(feed.age()), 1000);
    return () => clearInterval(timer);
  }, []);
  return age;
}

/**
 * Whether Taxiarch may send; draws again only when that changes, and not with every report. While nobody
 * knows, what was last known counts: hot is never taken for safe.
 */
export const useHot = (): boolean => useSyncExternalStore(onLive, () => feed.lastKnown()?.output.hot ?? false);

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

/** A universe of which no frame comes in this time is not heard. */
const FRAME_MS = 400;

/** Levels of some slots as they are now, once; undefined where nothing is heard. */
export async function readSlots(slots: readonly WireSlot[]): Promise<(number | undefined)[]> {
  const keys = new Set(slots.flatMap(({ key }) => key ?? []));
  const frames = await Promise.all([...keys].map(async (key) => [key, await oneFrame(key)] as const));
  const found = new Map(frames);
  return slots.map(({ key, slot }) => (key === undefined ? undefined : found.get(key)?.values[slot]));
}

const oneFrame = (key: number): Promise<UniverseFrame | undefined> =>
  new Promise((resolve) => {
    let stop = (): void => undefined;
    const done = (frame?: UniverseFrame) => {
      clearTimeout(late);
      resolve(frame);
      // The first frame may come while it is still being asked for.
      setTimeout(() => stop());
    };
    const late = setTimeout(done, FRAME_MS);
    stop = feed.watch(key, done);
  });

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

export const useSettings = () => useSWR<Settings, Error>(addressOf('readSettings'), fetchAddress);
export const useInterfaces = () =>
  useSWR<InterfacesReply, Error>(addressOf('readInterfaces'), fetchAddress, { refreshInterval: 2000 });
