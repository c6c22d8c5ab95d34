/** DMX adapters: which run, which serial ports are there, and the levels at both ends. */
import useSWR from 'swr';
import type { PlugsReply, PlugValuesReply } from '@taxiarch/core/whole/contract';
import { addressOf } from '@taxiarch/core/whole/contract/paths';
import { call, fetchAddress } from './api';
import { whoIsHere } from './person';

const PORTS_MS = 2000;
const VALUES_MS = 250;

/** Serial ports are looked for again every two seconds, so that one that is plugged in is there. */
export const usePlugs = () =>
  useSWR<PlugsReply, Error>(addressOf('readPlugs'), fetchAddress, { refreshInterval: PORTS_MS });

export const usePlugValues = (machine: string, on: boolean) =>
  useSWR<PlugValuesReply, Error>(on ? addressOf('readPlugValues', { machine }) : null, fetchAddress, {
    refreshInterval: VALUES_MS,
  });

export const runPlug = async (id: string, on: boolean) =>
  call('runPlugs', { body: { ids: [id], on, by: await whoIsHere() } });
