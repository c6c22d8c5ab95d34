/** What if, on the show’s thread. */
import type { RollNow } from '@taxiarch/core/truth/roll';
import { portKey } from '@taxiarch/core/truth/simulate';
import type { WhatIfFrom } from '@taxiarch/core/truth/whatif';
import { ProblemError } from '../problemError';
import type { ShowStore } from '../store/store';
import type { WhatIfs } from '../whatIf/whatIfs';
import type { WhatIfOrder } from '../whatIf/whatIfThread';
import type { Call, Handlers } from './api';
import { rollRows } from './asked';

type WhatIfHandlers = Pick<Handlers, 'whatIf' | 'everyFailure' | 'readEvery' | 'cancelEvery' | 'mendFailure'>;

export function whatIfHandlers(store: ShowStore, whatIfs: WhatIfs): WhatIfHandlers {
  type Asked = Pick<Call<unknown>, 'live' | 'roll'>;
  const order = (from: WhatIfFrom, { live, roll }: Asked, what: WhatIfOrder['what']): WhatIfOrder => ({
    ...{ records: store.records(), from, what, hangsOn: hangsOn(roll) },
    live: from === 'now' ? live : undefined,
  });
  /** Where lamps answered from, whatever the plan says. */
  const hangsOn = (roll: RollNow | undefined): ReadonlyMap<string, string> =>
    new Map(
      rollRows(store, roll).flatMap(({ lampId, seen, machineId, portNumber }) =>
        seen && lampId !== '' ? [[lampId, portKey(machineId, portNumber)] as const] : [],
      ),
    );
  return {
    whatIf: ({ body: { from, events, seconds }, ...asked }) =>
      whatIfs.run(order(from, asked, { type: 'run', events, seconds })),
    everyFailure: ({ body: { from, pairs }, ...asked }) => whatIfs.every(order(from, asked, { type: 'every', pairs })),
    readEvery: ({ params: { id } }) => whatIfs.read(id),
    cancelEvery: ({ params: { id } }) => whatIfs.cancel(id),
    mendFailure: async ({ body: { from, key }, ...asked }) => {
      const mends = await whatIfs.mends(order(from, asked, { type: 'mends', key }));
      if (!mends) throw new ProblemError('not-here', 'This failure is not possible any more: the plan changed.');
      return {
        mends: mends.map(({ says, plan }) => ({
          says,
          sentence: plan?.sentence ?? '',
          lines: plan?.lines ?? [],
          changes: plan?.changes ?? null,
        })),
      };
    },
  };
}
