/** What if: failures played on a time line, and every single one tried. */
import { useEffect, useState } from 'react';
import useSWR from 'swr';
import type { EveryReply, MendsReply, WhatIfRequest } from '@taxiarch/core/whole/contract';
import { addressOf } from '@taxiarch/core/whole/contract/paths';
import type { WhatIfFrom, WhatIfReport } from '@taxiarch/core/truth/whatif';
import { call, fetchAddress } from './api';

const LOOK_MS = 300;

/** The time line as it stands, played anew when it changes; nothing without events. */
export function usePlayed(wish: WhatIfRequest): {
  readonly report: WhatIfReport | undefined;
  readonly trouble: string;
} {
  const { data, error } = useSWR<WhatIfReport, Error>(
    wish.events.length > 0 ? ['whatIf', JSON.stringify(wish)] : null,
    () => call('whatIf', { body: wish }),
    { dedupingInterval: 0, keepPreviousData: false, revalidateOnReconnect: false },
  );
  return { report: wish.events.length > 0 ? data : undefined, trouble: error?.message ?? '' };
}

export interface Every {
  readonly reply: EveryReply | undefined;
  readonly trouble: string;
  begin(from: WhatIfFrom, pairs: boolean): void;
  cancel(): void;
}

/** Every failure, tried on the server; a page that is left behind ends it. */
export function useEvery(): Every {
  const [begun, setBegun] = useState<EveryReply>();
  const [trouble, setTrouble] = useState('');
  const { data } = useSWR<EveryReply, Error>(begun ? addressOf('readEvery', { id: begun.id }) : null, fetchAddress, {
    refreshInterval: (now) => (now?.ended ? 0 : LOOK_MS),
    keepPreviousData: false,
  });
  const reply = begun && (data ?? begun);
  const running = reply && !reply.ended ? reply.id : undefined;
  useEffect(() => {
    if (running === undefined) return;
    return () => void call('cancelEvery', { params: { id: running } }).catch(() => undefined);
  }, [running]);
  return {
    reply,
    trouble: trouble || (reply?.why ?? ''),
    begin(from, pairs) {
      setTrouble('');
      call('everyFailure', { body: { from, pairs } }).then(setBegun, (error: Error) => setTrouble(error.message));
    },
    cancel: () => setBegun(undefined),
  };
}

export const mendsFor = (from: WhatIfFrom, key: string): Promise<MendsReply> =>
  call('mendFailure', { body: { from, key } });
