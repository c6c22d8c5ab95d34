/** A sender's line that goes elsewhere than the show plans its universes: another protocol, or numbers mixed up. */
import { formatWire, protocolName } from '../../base/address';
import { isAsPlanned, rangeText, sentTo, changedLines, type Sender } from '../../network/flow';
import type { SendLine, Universe } from '../../show/records';
import type { Check, Finding } from './finding';

/** How far the numbers of a line lie beside the plan, if it is the same for all of them. */
function shiftOf(line: SendLine, planned: ReadonlyMap<number, Universe>): number | undefined {
  const shifts = new Set<number | undefined>();
  for (let i = 0; i < line.count; i += 1) {
    const universe = planned.get(line.from + i);
    const sent = sentTo(line, line.from + i, universe);
    shifts.add(universe && sent && sent.protocol === universe.protocol ? sent.number - universe.wire : undefined);
  }
  return shifts.size === 1 ? [...shifts][0] : undefined;
}

function sentence(sender: Sender, line: SendLine, universe: Universe, shift: number | undefined): string {
  const sent = sentTo(line, universe.number, universe)!;
  const planned = { protocol: universe.protocol, number: universe.wire };
  const what = `${sender.name} sends ${rangeText(line)} from ${formatWire(sent)} on`;
  if (sent.protocol !== planned.protocol)
    return `${what}; the show plans universe ${universe.number} by ${protocolName(planned.protocol)}.`;
  if (Math.abs(shift ?? 0) === 1)
    return `${what}; planned is ${formatWire(planned)}. One of them counts from 0 and the other from 1: it is off by one.`;
  return `${what}; the show plans universe ${universe.number} as ${formatWire(planned)}.`;
}

export const sentBeside: Check = {
  rule: 'sent beside the plan',
  *find({ records, senders }): Generator<Finding> {
    const planned = new Map(records.universe.map((one) => [one.number, one]));
    for (const sender of senders)
      for (const line of sender.lines) {
        if (!line.on || !line.to) continue;
        const first = Array.from({ length: line.count }, (_, i) => planned.get(line.from + i)).find(
          (universe) => universe && !isAsPlanned(line, universe.number, universe),
        );
        if (!first) continue;
        // One that is sent as planned by another line too is sent twice, which is another finding.
        const elsewhere = sender.lines.some(
          (other) =>
            other !== line && other.on && isCovered(other, first.number) && isAsPlanned(other, first.number, first),
        );
        if (elsewhere) continue;
        yield {
          rule: this.rule,
          weight: 'must fix',
          subjects: [sender.id],
          sentence: sentence(sender, line, first, shiftOf(line, planned)),
          evidence: [],
          universe: line.from,
        };
      }
  },
  repairs({ senders }, { subjects: [id], universe }) {
    const sender = senders.find((one) => one.id === id);
    const line = sender?.lines.find((one) => one.from === universe && one.to);
    if (!sender || !line) return [];
    const lines = sender.lines.map((one) => (one === line ? { ...one, to: null } : one));
    return [
      {
        label: 'Send each as the show plans it',
        plan: {
          sentence: `Set ${sender.name} to send ${rangeText(line)} as planned`,
          changes: [changedLines(sender, lines)],
          lines: [
            {
              subject: `${sender.name}, universes ${rangeText(line)}`,
              before: `from ${formatWire(line.to!)}`,
              after: 'as planned',
            },
          ],
        },
      },
    ];
  },
};

const isCovered = ({ from, count }: SendLine, universe: number): boolean => universe >= from && universe < from + count;
