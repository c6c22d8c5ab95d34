/** What can happen, in words. */
import type { ShowRecords } from '@taxiarch/core/show/records';
import type { Happens, WhatIfEvent } from '@taxiarch/core/truth/whatif';

export const HAPPENS_WORDS: Readonly<Record<Happens, string>> = {
  cable: 'A network cable is pulled',
  'port cable': 'A DMX cable is pulled',
  power: 'A machine loses power',
  freeze: 'A desk freezes',
  stop: 'A desk stops sending',
  multicast: 'Multicast is lost',
  sync: 'Synchronisation is gone',
  lossy: 'A link loses packets',
  'second desk': 'A second desk sends the same',
  'place power': 'A place loses power',
};

export const nameOfTarget = (
  { id, port }: Pick<WhatIfEvent, 'id' | 'port'>,
  { machine, place }: ShowRecords,
): string => {
  const name = machine.find((one) => one.id === id)?.name ?? place.find((one) => one.id === id)?.name ?? id;
  return port > 0 ? `${name}, port ${port}` : name;
};

/** “At 2 s a desk freezes: Bridge desk, for 10 s” */
export function eventText(event: WhatIfEvent, records: ShowRecords): string {
  const { kind, at, lasts, amount } = event;
  const how = kind === 'lossy' ? `, ${amount} % lost` : kind === 'second desk' ? `, priority ${amount}` : '';
  const end = lasts === 0 ? '' : `, for ${lasts} s`;
  return `${at} s: ${HAPPENS_WORDS[kind].toLowerCase()}, ${nameOfTarget(event, records)}${how}${end}`;
}
