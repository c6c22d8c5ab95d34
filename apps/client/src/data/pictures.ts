/** Test pictures shown from this page. */
import type { OutputReport } from '@taxiarch/core/whole/contract';
import type { PictureReport, TestPicture } from '@taxiarch/core/rig/picture';
import { call } from './api';
import { clientId } from './client';
import { feed } from './feed';
import { useLive } from './live';
import { whoIsHere } from './person';

/** This page shows one at a time. */
const ID = 'test';

export interface Shown {
  readonly picture: TestPicture;
  readonly lampIds: readonly string[];
  readonly universes: readonly number[];
  /** Steps a second, and 0–1 */
  readonly speed: number;
  readonly level: number;
}

export const showPicture = async (shown: Shown): Promise<OutputReport> =>
  call('showPicture', { body: { ...shown, client: clientId, id: ID, by: await whoIsHere() } });
export const tunePicture = (speed: number, level: number): Promise<OutputReport> =>
  call('tunePicture', { body: { client: clientId, id: ID, speed, level } });
export const endPicture = (): Promise<OutputReport> => call('endPicture', { body: { client: clientId, id: ID } });

/** What this page shows, and what others do. */
export function usePictures(): { readonly own: PictureReport | undefined; readonly others: readonly PictureReport[] } {
  const all = useLive()?.output.pictures ?? [];
  const own = all.find(({ id, holder }) => id === ID && holder === feed.holder);
  return { own, others: all.filter((one) => one !== own && one.id === ID) };
}
