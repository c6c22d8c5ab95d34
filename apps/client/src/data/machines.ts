/** Planned and heard machines together, and what can be done to them over the network. */
import useSWR from 'swr';
import type { LiveReport, NodeReport, PushReply, StandIn } from '@taxiarch/core/contract';
import { heardMachines, matchMachines, type MachineEntry } from '@taxiarch/core/node';
import type { ShowRecords } from '@taxiarch/core/show';
import { get, post } from './api';
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

export const pushToNodes = (machineIds: readonly string[], snapshotId?: string) =>
  post<PushReply>('/api/nodes/push', { machineIds, ...(snapshotId !== undefined && { snapshotId }) });

export const locate = (address: string, on: boolean) => post<NodeReport>('/api/nodes/locate', { address, on });

export const scan = () => post<{ asked: boolean }>('/api/nodes/scan', {});

const BENCH = '/api/stand-ins';

/** The bench of stand-ins, looked at twice a second; an error when there is none. */
export const useStandIns = () => useSWR<readonly StandIn[], Error>(BENCH, get, { refreshInterval: 500 });

/** Does something to a stand-in: power, plug, trouble, or a turn at its front panel. */
export const handleStandIn = (id: string, act: object) => post<readonly StandIn[]>(`${BENCH}/handle`, { id, ...act });
