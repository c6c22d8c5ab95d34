/** Planned and heard machines together, and what can be done to them over the network. */
import { useMemo } from 'react';
import useSWR from 'swr';
import type { LiveReport, PushReply, StandIn } from '@taxiarch/core/whole/contract';
import { addressOf } from '@taxiarch/core/whole/contract/paths';
import {
  heardFaults,
  type HeardFault,
  heardMachines,
  type MachineEntry,
  matchMachines,
} from '@taxiarch/core/network/node';
import type { ShowRecords } from '@taxiarch/core/show/records';
import { call, fetchAddress } from './api';
import { useLive } from './live';
import { useShow } from './show';

interface Joined {
  readonly live: LiveReport | undefined;
  readonly records: ShowRecords;
  readonly entries: readonly MachineEntry[];
}

let joined: Joined | undefined;

/** All machines as plan and wire have them now; made once a report for all screens. */
export function useMachines(): readonly MachineEntry[] {
  const { records } = useShow();
  const live = useLive();
  if (!joined || joined.live !== live || joined.records !== records)
    joined = { live, records, entries: matchMachines(records, live ? heardMachines(live) : []) };
  return joined.entries;
}

const NO_FAULTS: readonly HeardFault[] = [];

/** Addresses and identities that two claim at once. */
export function useHeardFaults(): readonly HeardFault[] {
  const live = useLive();
  return useMemo(() => (live ? heardFaults(live) : NO_FAULTS), [live]);
}

export const pushToNodes = (machineIds: readonly string[], snapshotId?: string): Promise<PushReply> =>
  call('push', { body: { machineIds, ...(snapshotId !== undefined && { snapshotId }) } });

export const locate = (address: string, on: boolean) => call('locate', { body: { address, on } });

export const scan = () => call('scan');

/** The bench of stand-ins, looked at twice a second; an error when there is none. */
export const useStandIns = () =>
  useSWR<readonly StandIn[], Error>(addressOf('readStandIns'), fetchAddress, { refreshInterval: 500 });

/** Does something to a stand-in: power, plug, trouble, or a turn at its front panel. */
export const handleStandIn = (id: string, act: object) => call('handleStandIn', { body: { id, ...act } });
