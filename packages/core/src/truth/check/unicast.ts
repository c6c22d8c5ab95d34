/** Unicast to a machine that has nothing to do with the universe, or to an address that is nobody's. */
import { rangeText, changedLines } from '../../network/flow';
import type { Machine, SendLine } from '../../show/records';
import type { Check, Finding, NetworkView } from './finding';

/** These take any universe without a port of their own. */
const ANY = new Set<Machine['kind']>(['visualiser', 'computer', 'media server', 'console', 'backup console']);

function carriesAny({ ports, controller }: Machine, { from, count }: SendLine): boolean {
  const within = (universe: number) => universe >= from && universe < from + count;
  if (ports.some(({ use, universe }) => use === 'out' && within(universe))) return true;
  return (
    controller !== null &&
    controller.firstUniverse < from + count &&
    from < controller.firstUniverse + controller.universes
  );
}

function takes(view: NetworkView, address: string, line: SendLine): boolean {
  const machine = view.byAddress.get(address)?.machine;
  return machine !== undefined && (ANY.has(machine.kind) || carriesAny(machine, line));
}

export const unicast: Check = {
  rule: 'unicast to no carrier',
  *find(view): Generator<Finding> {
    for (const sender of view.senders)
      for (const line of sender.lines) {
        if (!line.on || line.delivery !== 'unicast') continue;
        for (const address of line.addresses) {
          if (takes(view, address, line)) continue;
          const known = view.byAddress.get(address);
          yield {
            rule: this.rule,
            weight: 'must fix',
            subjects: [sender.id, ...(known ? [known.machine.id] : [])],
            sentence: known
              ? `${sender.name} sends ${rangeText(line)} to ${address}; ${known.machine.name} there carries none of these.`
              : `${sender.name} sends ${rangeText(line)} to ${address}, where no machine of the plan is.`,
            evidence: [],
            universe: line.from,
          };
        }
      }
  },
  repairs(view, { subjects: [id], universe }) {
    const sender = view.senders.find((one) => one.id === id);
    const wrong = sender?.lines.find(({ on, from, delivery }) => on && from === universe && delivery === 'unicast');
    if (!sender || !wrong) return [];
    const addresses = wrong.addresses.filter((address) => takes(view, address, wrong));
    const gone = wrong.addresses.filter((address) => !addresses.includes(address)).join(', ');
    // Without an address left, it goes out as the protocol does of itself.
    const mended: SendLine = { ...wrong, addresses, delivery: addresses.length > 0 ? 'unicast' : 'usual' };
    const lines = sender.lines.map((line) => (line === wrong ? mended : line));
    return [
      {
        label: `Send no more to ${gone}`,
        plan: {
          sentence: `Took ${gone} from the outputs of ${sender.name}`,
          changes: [changedLines(sender, lines)],
          lines: [{ subject: `${sender.name}, to ${gone}`, before: 'unicast', after: '' }],
        },
      },
    ];
  },
};
