/** A sender's line that goes elsewhere than the show plans its universes: another protocol, or numbers mixed up. */
import { formatWire, protocolName } from '../address';
import { isAsPlanned, rangeText, sentTo } from '../flow';
import { changed } from '../patch';
import type { Source, SourceRange, Universe } from '../show';
import type { Check, Finding } from './finding';

/** How far the numbers of a line lie beside the plan, if it is the same for all of them. */
function shiftOf(range: SourceRange, planned: ReadonlyMap<number, Universe>): number | undefined {
  const shifts = new Set<number | undefined>();
  for (let i = 0; i < range.count; i += 1) {
    const universe = planned.get(range.from + i);
    const sent = sentTo(range, range.from + i, universe);
    shifts.add(universe && sent && sent.protocol === universe.protocol ? sent.number - universe.wire : undefined);
  }
  return shifts.size === 1 ? [...shifts][0] : undefined;
}

function sentence(source: Source, range: SourceRange, universe: Universe, shift: number | undefined): string {
  const sent = sentTo(range, universe.number, universe)!;
  const planned = { protocol: universe.protocol, number: universe.wire };
  const what = `${source.name} sends ${rangeText(range)} from ${formatWire(sent)} on`;
  if (sent.protocol !== planned.protocol)
    return `${what}; the show plans universe ${universe.number} by ${protocolName(planned.protocol)}.`;
  if (Math.abs(shift ?? 0) === 1)
    return `${what}; planned is ${formatWire(planned)}. One of them counts from 0 and the other from 1: it is off by one.`;
  return `${what}; the show plans universe ${universe.number} as ${formatWire(planned)}.`;
}

export const sentBeside: Check = {
  rule: 'sent beside the plan',
  *find({ records }): Generator<Finding> {
    const planned = new Map(records.universe.map((one) => [one.number, one]));
    for (const source of records.source)
      for (const range of source.ranges) {
        if (!range.on || !range.to) continue;
        const first = Array.from({ length: range.count }, (_, i) => planned.get(range.from + i)).find(
          (universe) => universe && !isAsPlanned(range, universe.number, universe),
        );
        if (!first) continue;
        // One that is sent as planned by another line too is sent twice, which is another finding.
        const elsewhere = source.ranges.some(
          (other) =>
            other !== range && other.on && isCovered(other, first.number) && isAsPlanned(other, first.number, first),
        );
        if (elsewhere) continue;
        yield {
          rule: this.rule,
          weight: 'must fix',
          subjects: [source.id],
          sentence: sentence(source, range, first, shiftOf(range, planned)),
          evidence: [],
          universe: range.from,
        };
      }
  },
  repairs({ records }, { subjects: [id], universe }) {
    const source = records.source.find((one) => one.id === id);
    const range = source?.ranges.find((one) => one.from === universe && one.to);
    if (!source || !range) return [];
    const ranges = source.ranges.map((one) => (one === range ? { ...one, to: null } : one));
    return [
      {
        label: 'Send each as the show plans it',
        plan: {
          sentence: `Set ${source.name} to send ${rangeText(range)} as planned`,
          changes: [changed('source', source, { ...source, ranges })],
          lines: [
            {
              subject: `${source.name}, universes ${rangeText(range)}`,
              before: `from ${formatWire(range.to!)}`,
              after: 'as planned',
            },
          ],
        },
      },
    ];
  },
};

const isCovered = ({ from, count }: SourceRange, universe: number): boolean =>
  universe >= from && universe < from + count;
