/** Why? and how things stand, as the server works them out from plan and wire. */
import useSWR, { mutate } from 'swr';
import type { HappenedReply } from '@taxiarch/core/whole/contract';
import type { PortForecast, PushForecast, StandingReport, WhyReport } from '@taxiarch/core/truth/known';
import { addressOf } from '@taxiarch/core/whole/contract/paths';
import type { Subject } from '@taxiarch/core/show/records';
import { fetchAddress } from './api';

/** Looked at again this often while somebody looks. */
const AGAIN_MS = 2000;
/** Each repair on a screen asks for itself; these change seldom. */
const PUSH_AGAIN_MS = 6000;
const STANDING = addressOf('standing');

export function useWhy(about: Subject): { readonly why: WhyReport | undefined; readonly trouble: string } {
  const address = addressOf('why', {}, { kind: about.kind, id: about.id, part: about.part || undefined });
  const { data, error } = useSWR<WhyReport, Error>(address, fetchAddress, { refreshInterval: AGAIN_MS });
  return { why: data, trouble: data ? '' : (error?.message ?? '') };
}

export function useStanding(): { readonly standing: StandingReport | undefined; readonly trouble: string } {
  const { data, error } = useSWR<StandingReport, Error>(STANDING, fetchAddress, { refreshInterval: AGAIN_MS });
  return { standing: data, trouble: data ? '' : (error?.message ?? '') };
}

/** After something was answered or mended nobody waits for the next look. */
export const lookAgain = (): void =>
  void mutate((key) => typeof key === 'string' && (key === STANDING || key.startsWith(addressOf('why'))));

/** Where Why? about something is told. */
export const whyHref = ({ kind, id, part }: Subject): `/why?${string}` =>
  `/why?kind=${kind}&id=${encodeURIComponent(id)}${part === '' ? '' : `&part=${encodeURIComponent(part)}`}`;

/** What happened in the last hour, newest first. */
export const useHappened = (): HappenedReply['happened'] | undefined =>
  useSWR<HappenedReply>(addressOf('readHappened'), fetchAddress, { refreshInterval: AGAIN_MS }).data?.happened;

/** What pushing the plan to nodes would bring; undefined until it is known. */
export const usePushForecast = (machineIds: readonly string[]): readonly PushForecast[] | undefined =>
  useSWR<readonly PushForecast[], Error>(
    machineIds.length === 0 ? null : addressOf('forecastPush', {}, { machines: machineIds.join(',') }),
    fetchAddress,
    { refreshInterval: PUSH_AGAIN_MS },
  ).data;

/** What taking slots of a universe would bring; undefined until it is known. */
export const useForecast = (universe: number, priority: number | undefined): readonly PortForecast[] | undefined =>
  useSWR<readonly PortForecast[], Error>(
    priority === undefined ? null : addressOf('forecast', {}, { universe, priority }),
    fetchAddress,
    { refreshInterval: AGAIN_MS },
  ).data;
