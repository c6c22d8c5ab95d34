/** A sender faster than DMX512 can carry, or than the model of a node that carries it. */
import { rangeText, universesOf } from '../flow';
import { changed } from '../patch';
import type { Source, SourceRange } from '../show';
import type { Check, Finding, NetworkView } from './finding';
import { flowOf } from './flowView';

/** Full frames of 512 slots a second (ANSI E1.11, timing). */
const DMX_RATE = 44;

/** The most that a range's carriers take, and who says so. */
function mostOf(source: Source, range: SourceRange, view: NetworkView): { most: number; who: string } {
  const { carriers } = flowOf(view);
  let most = DMX_RATE;
  let who = 'DMX';
  for (const universe of universesOf({ ...source, ranges: [range] }))
    for (const { known, port } of carriers.get(universe) ?? [])
      if (port && known.model && known.model.rate < most) {
        most = known.model.rate;
        who = `a ${known.model.name}, which is ${known.machine.name},`;
      }
  return { most, who };
}

export const tooFast: Check = {
  rule: 'too fast',
  *find(view): Generator<Finding> {
    for (const source of view.records.source)
      for (const range of source.ranges) {
        if (!range.on) continue;
        const { most, who } = mostOf(source, range, view);
        if (range.rate > most)
          yield {
            rule: this.rule,
            weight: range.rate > DMX_RATE ? 'must fix' : 'look at',
            subjects: [source.id],
            sentence: `${source.name} sends ${rangeText(range)} ${range.rate} times a second; ${who} carries at most ${most}.`,
            evidence: [],
            universe: range.from,
          };
      }
  },
  repairs(view, { subjects: [id], universe }) {
    const source = view.records.source.find((one) => one.id === id);
    const fast = source?.ranges.find((range) => range.on && range.from === universe);
    if (!source || !fast) return [];
    const { most } = mostOf(source, fast, view);
    const ranges = source.ranges.map((range) =>
      range.from === universe ? { ...range, rate: Math.min(range.rate, most) } : range,
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
