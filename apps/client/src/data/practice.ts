/** Practising on the stand-ins: the one that runs, and what is done in it. */
import useSWR, { mutate } from 'swr';
import type { PracticeReply, PracticeRequest } from '@taxiarch/core/whole/contract';
import { addressOf } from '@taxiarch/core/whole/contract/paths';
import type { ShowRecords, Subject } from '@taxiarch/core/show/records';
import { call, fetchAddress } from './api';
import { whoIsHere } from './person';

const PRACTICE = addressOf('readPractice');
const RUNNING_MS = 2000;
/** Somebody else may begin one */
const IDLE_MS = 15_000;

export const usePractice = (): PracticeReply | undefined =>
  useSWR<PracticeReply, Error>(PRACTICE, fetchAddress, {
    refreshInterval: (now) => (now?.running ? RUNNING_MS : IDLE_MS),
  }).data;

const show = (next: PracticeReply): Promise<unknown> => mutate(PRACTICE, next, { revalidate: false });

export async function beginPractice(asked: Omit<PracticeRequest, 'author'>): Promise<void> {
  const author = await whoIsHere();
  await show(await call('beginPractice', { body: { ...asked, author } }));
}

/** Says what is wrong; true if it is so. */
export async function nameFault(about: Subject, cause: string): Promise<boolean> {
  const { right, practice } = await call('nameFault', { body: { about, cause } });
  await show(practice);
  return right;
}

export const giveHint = async (): Promise<void> => void (await show(await call('giveHint')));
export const endPractice = async (): Promise<void> => void (await show(await call('endPractice')));

/** Nobody waits for it, and it is no harm if it is lost. */
export const tellLooked = (screen: string): void => void call('lookedAt', { body: { screen } }).catch(() => undefined);

const AREAS: Readonly<Record<string, string>> = {
  rig: 'Rig',
  wire: 'Wire',
  flow: 'Flow',
  listen: 'Listen',
  prove: 'Prove',
  show: 'Show',
  why: 'Why?',
};

/** A screen as a person would call it: `Wire, Boiler node`. */
export function screenName(path: string, search: string, { machine, link, lamp }: ShowRecords): string {
  const named = (id: string): string =>
    machine.find((one) => one.id === id)?.name ??
    link.find((one) => one.id === id)?.name ??
    lamp.find((one) => one.id === id)?.name ??
    (/^u\d+$/.test(id) ? `universe ${id.slice(1)}` : id.replace(/-/g, ' '));
  const [area = '', ...rest] = path.split('/').filter(Boolean).map(decodeURIComponent);
  if (area === '') return 'How things stand';
  if (area === 'why') {
    const of = new URLSearchParams(search);
    const id = of.get('id') ?? '';
    const part = of.get('part') ?? '';
    const about = of.get('kind') === 'universe' ? `universe ${id}` : named(id);
    return `Why? of ${part === '' ? about : `port ${part} of ${about}`}`;
  }
  return [AREAS[area] ?? area, ...rest.map(named)].join(', ');
}
