/** What a plan asks of a box that no Art-Net packet sets or tells: a person turns it at the front panel. */
import { lossText, MERGE_WORDS, START_WORDS } from '../machine';
import type { Machine, MachinePort, Model } from '../../show/records';
import { commonFailSafe } from './drift';

/** Settings of one port that stay with the front panel; a model that has no choice is not asked. */
function* ofPort(port: MachinePort, model: Model | undefined, oneLoss: boolean): Generator<string> {
  if (port.use === 'fixed') {
    yield `fixed value ${port.fixed}`;
    return;
  }
  if (port.use !== 'out' || port.copyOf !== null) return;
  const chooses = (choices: readonly unknown[] | undefined) => choices === undefined || choices.length > 1;
  const { merge, loss, start, rate } = port;
  if ((merge === 'priority' || merge === 'none') && chooses(model?.merges)) yield `merge: ${MERGE_WORDS[merge]}`;
  // Art-Net knows one loss of signal for the whole box, and no times.
  if ((loss.after > 0 || loss.over > 0 || !oneLoss) && chooses(model?.losses)) yield `signal lost: ${lossText(loss)}`;
  if (chooses(model?.starts)) yield `at the start: ${START_WORDS[start]}`;
  if (model === undefined || rate < model.rate) yield `rate: ${rate} Hz`;
}

/** One sentence a setting, for all ports that share it. */
export function setByHand({ ports }: Pick<Machine, 'ports'>, model: Model | undefined): string[] {
  const oneLoss = commonFailSafe(ports) !== undefined;
  const by = new Map<string, number[]>();
  for (const port of ports)
    for (const what of ofPort(port, model, oneLoss)) by.set(what, [...(by.get(what) ?? []), port.number]);
  return [...by].map(([what, numbers]) => `Port${numbers.length === 1 ? '' : 's'} ${numbers.join(', ')}, ${what}.`);
}
