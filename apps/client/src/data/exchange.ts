/** Rigs handed from program to program: what others offer, what is offered to them, and what is selected on both sides. */
import { useEffect, useMemo } from 'react';
import useSWR from 'swr';
import type { CitpPeerReport, ExchangeReply, Settings } from '@taxiarch/core/whole/contract';
import { addressOf } from '@taxiarch/core/whole/contract/paths';
import { call, fetchAddress } from './api';
import { useSettings } from './live';
import { whoIsHere } from './person';
import { addressesOf } from '@taxiarch/core/network/ip';
import type { Machine } from '@taxiarch/core/show/records';
import { rigSelection, useSelection } from './selection';
import { useShow } from './show';

const OFTEN_MS = 1000;
const SELDOM_MS = 3000;

/** Looked at every second while it is the screen's matter, less often beside others; nothing is asked while all is off. */
export function useExchange(often = true) {
  const { data: settings } = useSettings();
  const on = settings !== undefined && (settings.stations || settings.citp);
  return useSWR<ExchangeReply, Error>(on ? addressOf('readExchange') : null, fetchAddress, {
    refreshInterval: often ? OFTEN_MS : SELDOM_MS,
    keepPreviousData: false,
  });
}

export function useExchangeSettings() {
  const { data, mutate } = useSettings();
  const change = async (body: Partial<Settings>) => {
    await mutate(await call('changeSettings', { body }), { revalidate: false });
  };
  return { settings: data, change };
}

/** Each begins to compare; the address of the page on which it is compared. */
export const fetchRig = async (stationId: string, fileId: string): Promise<`/rig/arrivals/${string}`> =>
  `/rig/arrivals/${(await call('fetchRig', { body: { stationId, fileId } })).id}`;
export const askPatch = async (peer: string): Promise<`/rig/arrivals/${string}`> =>
  `/rig/arrivals/${(await call('askPatch', { body: { peer } })).id}`;

/** `forIds` are stations; empty for all. */
export const commitRig = async (comment: string, forIds: readonly string[]) =>
  call('commitRig', { body: { author: await whoIsHere(), comment, forIds } });
export const givePatch = (peer: string) => call('givePatch', { body: { peer } });
export const moveStation = (to: string) => call('moveStation', { body: { to } });
export const selectThere = (numbers: readonly number[]) => call('selectThere', { body: { numbers } });

const NOBODY: readonly CitpPeerReport[] = [];

/** Programs in which lamps are selected now, where a person agreed to be told. */
export function useSelectedThere(): readonly CitpPeerReport[] {
  const { data: settings } = useSettings();
  const { data } = useExchange(false);
  const on = settings?.citp === true && settings.selects;
  return useMemo(
    () => (on ? (data?.citp?.peers.filter(({ selected }) => selected.length > 0) ?? NOBODY) : NOBODY),
    [on, data],
  );
}

/** Lamps chosen here are selected in the other programs as well, where a person agreed to it. */
export function useSelectThere(): void {
  const { data: settings } = useSettings();
  const { records } = useShow();
  const chosen = useSelection(rigSelection);
  const on = settings?.citp === true && settings.selects;
  const numbers = useMemo(() => {
    const ids = new Set(chosen);
    return records.lamp.filter(({ id }) => ids.has(id)).map(({ number }) => number);
  }, [chosen, records.lamp]);
  const text = numbers.join(' ');
  useEffect(() => {
    // What cannot be told is told with the next choice.
    if (on) void selectThere(text === '' ? [] : text.split(' ').map(Number)).catch(() => undefined);
  }, [on, text]);
}

/** The program that a planned machine is, where it speaks CITP and is connected. */
export function usePeerOf(machine: Machine | undefined): CitpPeerReport | undefined {
  const { data } = useExchange(false);
  const addresses = machine ? addressesOf(machine).map(({ text }) => text) : [];
  return data?.citp?.peers.find(
    ({ linked, address, name }) => linked && (addresses.includes(address) || name === machine?.name),
  );
}
