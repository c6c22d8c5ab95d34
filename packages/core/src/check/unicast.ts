/** Unicast to a machine that has nothing to do with the universe, or to an address that is nobody's. */
import { rangeText } from '../flow';
import { changed } from '../patch';
import type { Machine, SourceRange } from '../show';
import type { Check, Finding, NetworkView } from './finding';

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

function takes(view: NetworkView, address: string, range: SourceRange): boolean {
  const machine = view.byAddress.get(address)?.machine;
  return machine !== undefined && (ANY.has(machine.kind) || carriesAny(machine, range));
}

export const unicast: Check = {
  rule: 'unicast to no carrier',
  *find(view): Generator<Finding> {
    for (const source of view.records.source)
      for (const range of source.ranges) {
        if (!range.on || range.delivery !== 'unicast') continue;
        for (const address of range.addresses) {
          if (takes(view, address, range)) continue;
          const known = view.byAddress.get(address);
          yield {
            rule: this.rule,
            weight: 'must fix',
            subjects: [source.id, ...(known ? [known.machine.id] : [])],
            sentence: known
              ? `${source.name} sends ${rangeText(range)} to ${address}; ${known.machine.name} there carries none of these.`
              : `${source.name} sends ${rangeText(range)} to ${address}, where no machine of the plan is.`,
            evidence: [],
            universe: range.from,
          };
        }
      }
  },
  repairs(view, { subjects: [id], universe }) {
    const source = view.records.source.find((one) => one.id === id);
    const wrong = source?.ranges.find(({ on, from, delivery }) => on && from === universe && delivery === 'unicast');
    if (!source || !wrong) return [];
    const addresses = wrong.addresses.filter((address) => takes(view, address, wrong));
    const gone = wrong.addresses.filter((address) => !addresses.includes(address)).join(', ');
    // Without an address left, it goes out as the protocol does of itself.
    const mended: SourceRange = { ...wrong, addresses, delivery: addresses.length > 0 ? 'unicast' : 'usual' };
    const ranges = source.ranges.map((range) => (range === wrong ? mended : range));
    return [
      {
        label: `Send no more to ${gone}`,
        plan: {
          sentence: `Took ${gone} from the outputs of ${source.name}`,
          changes: [changed('source', source, { ...source, ranges })],
          lines: [{ subject: `${source.name}, to ${gone}`, before: 'unicast', after: '' }],
        },
      },
    ];
  },
};
