/** Entry of a thread that plays failures, so that the server goes on meanwhile. */
import { parentPort, workerData } from 'node:worker_threads';
import type { DiagnosisHeard } from '@taxiarch/core/truth/diagnose';
import { lastGood } from '@taxiarch/core/truth/known';
import { heardMachines, matchMachines, type Heard } from '@taxiarch/core/network/node';
import { rigOf } from '@taxiarch/core/rig/patch';
import type { ShowRecords } from '@taxiarch/core/show/records';
import {
  WhatIf,
  fromGood,
  fromNow,
  fromPlan,
  mendsOf,
  singleFailures,
  tryFailures,
  type Based,
  type FailureRow,
  type Mend,
  type WhatIfEvent,
  type WhatIfFrom,
  type WhatIfReport,
} from '@taxiarch/core/truth/whatif';

export interface WhatIfOrder {
  readonly records: ShowRecords;
  readonly live: (DiagnosisHeard & Heard) | undefined;
  readonly from: WhatIfFrom;
  /** Ports on which lamps were found to hang, by their ids */
  readonly hangsOn: ReadonlyMap<string, string>;
  readonly what:
    | { readonly type: 'run'; readonly events: readonly WhatIfEvent[]; readonly seconds: number }
    | { readonly type: 'every'; readonly pairs: boolean }
    | { readonly type: 'mends'; readonly key: string };
}

export type FromWhatIf =
  | { readonly type: 'progress'; readonly done: number; readonly of: number }
  | { readonly type: 'refused'; readonly why: string }
  | { readonly type: 'run'; readonly report: WhatIfReport }
  | { readonly type: 'every'; readonly rows: readonly FailureRow[] }
  | { readonly type: 'mends'; readonly mends: readonly Mend[] | undefined };

const tell = (message: FromWhatIf): void => parentPort!.postMessage(message);

function based({ records, live, from }: WhatIfOrder): Based | string {
  const { patch } = rigOf(records);
  if (from === 'plan') return fromPlan(records, patch);
  if (from === 'good') {
    const good = lastGood(records.good);
    return good
      ? fromGood(records, patch, good)
      : 'Nothing was kept as good yet. Keep it on the first screen, or begin from the plan.';
  }
  if (!live) return 'Nothing is known of the wire yet. Begin from the plan, or wait a moment.';
  return fromNow(records, patch, live, matchMachines(records, heardMachines(live)));
}

function work(order: WhatIfOrder): void {
  const base = based(order);
  if (typeof base === 'string') return tell({ type: 'refused', why: base });
  const { records, what } = order;
  const whatIf = new WhatIf(records, rigOf(records).patch, base.world, order.hangsOn);
  if (what.type === 'run') return tell({ type: 'run', report: whatIf.run(what.events, what.seconds, base.assumes) });
  if (what.type === 'mends') {
    const failure = singleFailures(records, whatIf).find(({ key }) => key === what.key);
    return tell({ type: 'mends', mends: failure && mendsOf(failure, whatIf) });
  }
  const trying = tryFailures(whatIf, what.pairs);
  for (;;) {
    const { done, value } = trying.next();
    if (done) return tell({ type: 'every', rows: value });
    tell({ type: 'progress', ...value });
  }
}

work(workerData as WhatIfOrder);
