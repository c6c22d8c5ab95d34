/** A sender faster than DMX512 can carry, or than the model of a node that carries it. */
import { rangeText, universesOf } from '../flow';
import { changed } from '../patch';
import type { Check, Finding } from './finding';
import { flowOf } from './flowView';

/** Full frames of 512 slots a second (ANSI E1.11, timing). */
const DMX_RATE = 44;

export const tooFast: Check = {
  rule: 'too fast',
  *find(view): Generator<Finding> {
    const { carriers } = flowOf(view);
    for (const source of view.records.source)
      for (const range of source.ranges) {
        if (!range.on) continue;
        let most = DMX_RATE;
        let who = 'DMX';
        for (const universe of universesOf({ ...source, ranges: [range] }))
          for (const { known, port } of carriers.get(universe) ?? [])
            if (port && known.model && known.model.rate < most) {
              most = known.model.rate;
              who = `a ${known.model.name}, which is ${known.machine.name},`;
            }
        if (range.rate > most)
          yield {
            rule: this.rule,
            weight: range.rate > DMX_RATE ? 'must fix' : 'look at',
            subjects: [source.id],
            sentence: `${source.name} sends ${rangeText(range)} ${range.rate} times a second; ${who} carries at most ${most}.`,
            evidence: [String(most)],
            universe: range.from,
          };
      }
  },
  repairs({ records }, { subjects: [id], evidence: [most], universe }) {
    const source = records.source.find((one) => one.id === id);
    if (!source) return [];
    const ranges = source.ranges.map((range) =>
      range.from === universe ? { ...range, rate: Math.min(range.rate, Number(most)) } : range,
    );
    return [
      {
        label: `Send ${most} times a second`,
        plan: {
          sentence: `Slowed ${source.name} to ${most} frames a second`,
          changes: [changed('source', source, { ...source, ranges })],
          lines: source.ranges.flatMap((range, i) =>
            ranges[i] === range || ranges[i]!.rate === range.rate
              ? []
              : [
                  {
                    subject: `${source.name}, universes ${rangeText(range)}`,
                    before: `${range.rate} Hz`,
                    after: `${most} Hz`,
                  },
                ],
          ),
        },
      },
    ];
  },
};
