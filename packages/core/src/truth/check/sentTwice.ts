/** One universe sent by one sender by both protocols: twice the load, and two answers where one differs. */
import { sentTo, changedLines } from '../../network/flow';
import type { SendLine } from '../../show/records';
import type { Check, Finding } from './finding';

export const sentTwice: Check = {
  rule: 'protocols mixed',
  *find({ records, senders }): Generator<Finding> {
    const planned = new Map(records.universe.map((one) => [one.number, one]));
    for (const sender of senders) {
      const by = new Map<number, SendLine>();
      let told = false;
      for (const line of sender.lines)
        for (let i = 0; line.on && !told && i < line.count; i += 1) {
          const universe = line.from + i;
          const other = by.get(universe);
          const protocols = [line, other].map((one) => one && sentTo(one, universe, planned.get(universe))?.protocol);
          if (!other) by.set(universe, line);
          else if (protocols[0] !== protocols[1]) {
            told = true;
            yield {
              rule: this.rule,
              weight: 'look at',
              subjects: [sender.id],
              sentence: `${sender.name} sends universe ${universe} by sACN and by Art-Net at once; one of them is enough.`,
              evidence: [],
              universe,
            };
          }
        }
    }
  },
  repairs({ records, senders }, { subjects: [id], universe = 0 }) {
    const sender = senders.find((one) => one.id === id);
    const planned = records.universe.find(({ number }) => number === universe);
    // What goes by the other protocol than the show plans is switched off.
    const extra = sender?.lines.find(
      (line) =>
        line.on &&
        line.from <= universe &&
        universe < line.from + line.count &&
        sentTo(line, universe, planned)?.protocol !== planned?.protocol,
    );
    if (!sender || !extra) return [];
    return [
      {
        label: 'Switch off the line that the show does not plan',
        plan: {
          sentence: `Switched off a line of ${sender.name}`,
          changes: [
            changedLines(
              sender,
              sender.lines.map((one) => (one === extra ? { ...one, on: false } : one)),
            ),
          ],
          lines: [{ subject: `${sender.name}, universes from ${extra.from}`, before: 'on', after: 'off' }],
        },
      },
    ];
  },
};
