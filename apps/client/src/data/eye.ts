/** Matching by eye: the session that runs, for whoever looks on. */
import useSWR, { mutate } from 'swr';
import type { AnswerEyeRequest, BeginEyeRequest } from '@taxiarch/core/whole/contract';
import { addressOf } from '@taxiarch/core/whole/contract/paths';
import type { EyeReply } from '@taxiarch/core/proving/eye';
import { call, fetchAddress } from './api';
import { whoIsHere } from './person';

const EYE = addressOf('readEye');
/** Whoever looks on asks this often; without anybody it goes dark. */
const LOOK_MS = 1000;

export const useEye = (): EyeReply | undefined =>
  useSWR<EyeReply, Error>(EYE, fetchAddress, { refreshInterval: LOOK_MS, dedupingInterval: 200 }).data;

const show = (next: EyeReply): Promise<unknown> => mutate(EYE, next, { revalidate: false });

export async function beginEye(asked: Omit<BeginEyeRequest, 'by'>): Promise<void> {
  const by = await whoIsHere();
  await show(await call('beginEye', { body: { ...asked, by } }));
}
export const answerEye = async (body: AnswerEyeRequest): Promise<void> =>
  void (await show(await call('answerEye', { body })));
export const backEye = async (): Promise<void> => void (await show(await call('backEye')));

/** Ends it; gives how it came out. */
export async function endEye(): Promise<EyeReply> {
  const ended = await call('endEye');
  await mutate(EYE);
  return ended;
}
