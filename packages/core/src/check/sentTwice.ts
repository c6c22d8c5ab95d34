/** One universe sent by one sender by both protocols: twice the load, and two answers where one differs. */
import { sentTo } from '../flow';
import { changed } from '../patch';
import type { SourceRange } from '../show';
import type { Check, Finding } from './finding';

export const sentTwice: Check = {
  rule: 'protocols mixed',
  *find({ records }): Generator<Finding> {
    const planned = new Map(records.universe.map((one) => [one.number, one]));
    for (const source of records.source) {
      const by = new Map<number, SourceRange>();
      let told = false;
      for (const range of source.ranges)
        for (let i = 0; range.on && !told && i < range.count; i += 1) {
          const universe = range.from + i;
          const other = by.get(universe);
          const protocols = [range, other].map((one) => one && sentTo(one, universe, planned.get(universe))?.protocol);
          if (!other) by.set(universe, range);
          else if (protocols[0] !== protocols[1]) {
            told = true;
            yield {
              rule: this.rule,
              weight: 'look at',
              subjects: [source.id],
              sentence: `${source.name} sends universe ${universe} by sACN and by Art-Net at once; one of them is enough.`,
              evidence: [],
              universe,
            };
          }
        }
    }
  },
  repairs({ records }, { subjects: [id], universe = 0 }) {
    const source = records.source.find((one) => one.id === id);
    const planned = records.universe.find(({ number }) => number === universe);
    // What goes by the other protocol than the show plans is switched off.
    const extra = source?.ranges.find(
      (range) =>
        range.on &&
        range.from <= universe &&
        universe < range.from + range.count &&
        sentTo(range, universe, planned)?.protocol !== planned?.protocol,
    );
    if (!source || !extra) return [];
    return [
      {
        label: 'Switch off the line that the show does not plan',
        plan: {
          sentence: `Switched off a line of ${source.name}`,
          changes: [
            changed('source', source, {
              ...source,
              ranges: source.ranges.map((one) => (one === extra ? { ...one, on: false } : one)),
            }),
          ],
          lines: [{ subject: `${source.name}, universes from ${extra.from}`, before: 'on', after: 'off' }],
        },
      },
    ];
  },
};
