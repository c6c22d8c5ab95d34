/** Walks: begun, walked in step with others, and marked. */
import useSWR, { mutate } from 'swr';
import type {
  CoveredReply,
  CoveredRequest,
  GivenMark,
  StepReply,
  StepRequest,
  SwapsReply,
} from '@taxiarch/core/whole/contract';
import { addressOf } from '@taxiarch/core/whole/contract/paths';
import { added } from '@taxiarch/core/show/edit';
import { PLAIN_MARK, type Walk } from '@taxiarch/core/show/records';
import { timeCodeOf, timeCodesOf } from '@taxiarch/core/signal/stream';
import { itemOf, type WalkReply } from '@taxiarch/core/proving/walk';
import { call, fetchAddress } from './api';
import { clientId } from './client';
import { feed } from './feed';
import { markQueue } from './markQueue';
import { newId } from './numbers';
import { whoIsHere } from './person';
import { propose } from './show';

/** Of another walk nothing is shown while this one is being read. */
const READ = { refreshInterval: 5000, keepPreviousData: false };

export const useWalk = (walk: string) => useSWR<WalkReply, Error>(addressOf('readWalk', { walk }), fetchAddress, READ);
export const readWalkAgain = (walk: string): Promise<unknown> => mutate(addressOf('readWalk', { walk }));

export const useSwaps = (walk: string): SwapsReply | undefined =>
  useSWR<SwapsReply, Error>(addressOf('readSwaps', { walk }), fetchAddress, READ).data;

/** What a walk would cover; nothing while that is being asked, lest one begins it with what was chosen before. */
export const useCovered = (wish: CoveredRequest) =>
  useSWR<CoveredReply, Error>(['coverWalk', JSON.stringify(wish)], () => call('coverWalk', { body: wish }), {
    dedupingInterval: 0,
    keepPreviousData: false,
  });

export type NewWalk = Omit<Walk, 'id' | 'rev' | 'by' | 'at'>;

/** Resolves with its id. */
export async function beginWalk(made: NewWalk): Promise<string> {
  const id = newId();
  const walk: Walk = { ...made, id, rev: 0, by: await whoIsHere(), at: new Date().toISOString() };
  await propose(`Began the walk ${walk.name}`, [added('walk', walk)]);
  return id;
}

export const stepWalk = (walk: string, step: Omit<StepRequest, 'walker'>): Promise<StepReply> =>
  call('stepWalk', { params: { walk }, body: { ...step, walker: clientId } });

/** Said when one goes elsewhere; of a page that closes the server gives back by itself what was lit. */
export const leaveWalk = (walk: string): Promise<unknown> =>
  call('leaveWalk', { params: { walk }, body: { walker: clientId } }).catch(() => undefined);

export const tuneWalk = (speed: number, level: number): Promise<unknown> =>
  call('tunePicture', { body: { client: clientId, id: 'walk', speed, level } });

export type Marked = Pick<GivenMark, 'result'> & Partial<Pick<GivenMark, 'why' | 'did' | 'note'>>;

const { stood: _, ...PLAIN } = PLAIN_MARK;

/** Resolves once the mark is safe on this phone, whether or not the server answers. */
export async function markItem(
  { walk, key, by, knew }: { walk: string; key: string; by: string; knew: number },
  marked: Marked,
  photo: Blob | null,
): Promise<void> {
  const { lampId, channel } = itemOf(key);
  const at = new Date().toISOString();
  const live = feed.now();
  const timeCode = live ? timeCodeOf(timeCodesOf(live.alsoHeard, live.at)) : '';
  await markQueue().add(walk, { ...PLAIN, ...marked, id: newId(), lampId, channel, by, at, timeCode, knew }, photo);
}
