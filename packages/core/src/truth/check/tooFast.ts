/** A sender faster than DMX512 can carry, or than the model of a node that carries it. */
import { rangeText, universesOf, changedLines, type Sender } from '../../network/flow';
import type { SendLine } from '../../show/records';
import type { Check, Finding, NetworkView } from './finding';
import { flowOf } from './flowView';

/** Full frames of 512 slots a second (ANSI E1.11, timing). */
const DMX_RATE = 44;

/** The most that a line's carriers take, and who says so. */
function mostOf(sender: Sender, line: SendLine, view: NetworkView): { most: number; who: string } {
  const { carriers } = flowOf(view);
  let most = DMX_RATE;
  let who = 'DMX';
  for (const universe of universesOf({ ...sender, lines: [line] }))
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
    for (const sender of view.senders)
      for (const line of sender.lines) {
        if (!line.on) continue;
        const { most, who } = mostOf(sender, line, view);
        if (line.rate > most)
          yield {
            rule: this.rule,
            weight: line.rate > DMX_RATE ? 'must fix' : 'look at',
            subjects: [sender.id],
            sentence: `${sender.name} sends ${rangeText(line)} ${line.rate} times a second; ${who} carries at most ${most}.`,
            evidence: [],
            universe: line.from,
          };
      }
  },
  repairs(view, { subjects: [id], universe }) {
    const sender = view.senders.find((one) => one.id === id);
    const fast = sender?.lines.find((line) => line.on && line.from === universe);
    if (!sender || !fast) return [];
    const { most } = mostOf(sender, fast, view);
    const lines = sender.lines.map((line) =>
      line.from === universe ? { ...line, rate: Math.min(line.rate, most) } : line,
    );
    return [
      {
        label: `Send ${most} times a second`,
        plan: {
          sentence: `Slowed ${sender.name} to ${most} frames a second`,
          changes: [changedLines(sender, lines)],
          lines: sender.lines.flatMap((line, i) =>
            lines[i] === line || lines[i]!.rate === line.rate
              ? []
              : [
                  {
                    subject: `${sender.name}, universes ${rangeText(line)}`,
                    before: `${line.rate} Hz`,
                    after: `${most} Hz`,
                  },
                ],
          ),
        },
      },
    ];
  },
};
