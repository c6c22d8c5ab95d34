/** Unicast to a machine that has nothing to do with the universe, or to an address that is nobody's. */
import { rangeText } from '../flow';
import { changed } from '../patch';
import type { Machine, SourceRange } from '../show';
import type { Check, Finding } from './finding';

/** These take any universe without a port of their own. */
const ANY = new Set<Machine['kind']>(['visualiser', 'computer', 'media server', 'console', 'backup console']);

function carriesAny({ ports, controller }: Machine, { from, count }: SourceRange): boolean {
  const within = (universe: number) => universe >= from && universe < from + count;
  if (ports.some(({ use, universe }) => use === 'out' && within(universe))) return true;
  return (
    controller !== null &&
    controller.firstUniverse < from + count &&
    from < controller.firstUniverse + controller.universes
  );
}

export const unicast: Check = {
  rule: 'unicast to no carrier',
  *find(view): Generator<Finding> {
    for (const source of view.records.source)
      for (const range of source.ranges) {
        if (!range.on || range.delivery !== 'unicast') continue;
        for (const address of range.addresses) {
          const known = view.byAddress.get(address);
          if (known && (ANY.has(known.machine.kind) || carriesAny(known.machine, range))) continue;
          yield {
            rule: this.rule,
            weight: 'must fix',
            subjects: [source.id, ...(known ? [known.machine.id] : [])],
            sentence: known
              ? `${source.name} sends ${rangeText(range)} to ${address}; ${known.machine.name} there carries none of these.`
              : `${source.name} sends ${rangeText(range)} to ${address}, where no machine of the plan is.`,
            evidence: [address],
            universe: range.from,
          };
        }
      }
  },
  repairs({ records }, { subjects: [id], evidence: [address], universe }) {
    const source = records.source.find((one) => one.id === id);
    if (!source || address === undefined) return [];
    const ranges = source.ranges.map((range): SourceRange => {
      if (range.from !== universe || range.delivery !== 'unicast') return range;
      const addresses = range.addresses.filter((one) => one !== address);
      return addresses.length > 0 ? { ...range, addresses } : { ...range, delivery: 'usual', addresses };
    });
    return [
      {
        label: `Send no more to ${address}`,
        plan: {
          sentence: `Took ${address} from the outputs of ${source.name}`,
          changes: [changed('source', source, { ...source, ranges })],
          lines: [{ subject: `${source.name}, to ${address}`, before: 'unicast', after: '' }],
        },
      },
    ];
  },
};
