/** Lamps that answer: the roll call as it stands, and what is done to lamps. */
import useSWR, { mutate } from 'swr';
import type { LampParameters } from '@taxiarch/core/whole/contract';
import { addressOf } from '@taxiarch/core/whole/contract/paths';
import type { LampOutcome, LampWish, RollReply, RollRow } from '@taxiarch/core/truth/roll';
import { call, fetchAddress } from './api';
import { clientId } from './client';

const ROLL = addressOf('readRoll');
const RUNNING_MS = 600;
const IDLE_MS = 4000;

export const useRoll = (): RollReply | undefined =>
  useSWR<RollReply, Error>(ROLL, fetchAddress, {
    refreshInterval: (now) => (now?.progress.running ? RUNNING_MS : IDLE_MS),
  }).data;

/** Looked at at once, after something was done. */
export const readRollAgain = (): Promise<unknown> => mutate(ROLL);

type Ports = readonly { readonly address: string; readonly portAddress: number }[];

export async function callRoll(ports?: Ports): Promise<void> {
  const which = ports?.map(({ address, portAddress }) => ({ address, portAddress }));
  await call('callRoll', { body: which && which.length > 0 ? { ports: which } : {} });
  await readRollAgain();
}

export async function cancelRoll(): Promise<void> {
  await call('cancelRoll');
  await readRollAgain();
}

export async function setLamps(lamps: readonly LampWish[]): Promise<readonly LampOutcome[]> {
  const { results } = await call('setLamps', { body: { lamps } });
  await readRollAgain();
  return results;
}

/** What brings lamps to their plan; those that nobody can set so are left out. */
export const wishesOf = (rows: readonly RollRow[]): LampWish[] =>
  rows.flatMap(({ uid, seen, wanted, differences }): LampWish[] => {
    if (!seen || !wanted || !differences.some(({ what }) => what === 'address' || what === 'mode')) return [];
    const mode = wanted.mode !== null && wanted.mode !== seen.mode ? wanted.mode : undefined;
    return [{ uid, address: wanted.address, ...(mode !== undefined && { mode }) }];
  });

export const identify = async (uids: readonly string[], on: boolean): Promise<readonly LampOutcome[]> =>
  (await call('identify', { body: { uids, on, client: clientId } })).results;

export const setParameter = async (
  uids: readonly string[],
  pid: number,
  value: number | string,
  part = 0,
): Promise<readonly LampOutcome[]> => (await call('setParameter', { body: { uids, pid, part, value } })).results;

export async function leaveAlone(key: string): Promise<void> {
  await call('leaveAlone', { body: { key, on: true } });
  await readRollAgain();
}

export async function switchRdm(address: string, port: number): Promise<void> {
  await call('switchRdm', { body: { address, port, on: true } });
  await readRollAgain();
}

export const useParameters = (uid: string) =>
  useSWR<LampParameters, Error>(addressOf('readParameters', { uid }), fetchAddress);

const GREETING = addressOf('readGreeting');
export const useGreeting = (): boolean =>
  useSWR<{ readonly greets: boolean }>(GREETING, fetchAddress).data?.greets ?? false;
export const setGreeting = async (greets: boolean): Promise<unknown> =>
  mutate(GREETING, await call('setGreeting', { body: { greets } }), { revalidate: false });
