/** The machines that are planned to send, as the flow sees them. */
import { changed, type ProposedChange } from '../../show/edit';
import { addressesOf } from '../ip';
import { isOffNetwork, type Machine, type Pennant, type SendLine } from '../../show/records';

export interface Sender {
  readonly machine: Machine;
  /** Of the machine */
  readonly id: string;
  readonly name: string;
  /**
   * Dotted addresses from which its packets come: its own, or for a desk on a DMX cable those of the
   * machines whose inputs carry what it sends.
   */
  readonly addresses: readonly string[];
  readonly lines: readonly SendLine[];
  readonly pennant: Pennant;
}

const holds = ({ from, count }: SendLine, universe: number): boolean => universe >= from && universe < from + count;

/** Machines with an input on one of some lines' universes. */
const takenInBy = (lines: readonly SendLine[], machines: readonly Machine[]): Machine[] =>
  machines.filter(({ ports }) =>
    ports.some(({ use, universe }) => use === 'in' && lines.some((line) => holds(line, universe))),
  );

/** A machine as a sender, among all machines; undefined if it sends nothing. */
function senderFrom(machine: Machine, machines: readonly Machine[]): Sender | undefined {
  const { id, name, sends, kind } = machine;
  if (sends === null) return undefined;
  const from = isOffNetwork(kind) ? takenInBy(sends.lines, machines) : [machine];
  const addresses = from.flatMap((one) => addressesOf(one).map(({ text }) => text));
  return { machine, id, name, addresses, lines: sends.lines, pennant: sends.pennant };
}

const known = new WeakMap<readonly Machine[], readonly Sender[]>();

/** Everybody who is planned to send; found once for each list of machines. */
export function sendersOf(machines: readonly Machine[]): readonly Sender[] {
  let senders = known.get(machines);
  if (!senders) {
    senders = machines.flatMap((machine) => senderFrom(machine, machines) ?? []);
    known.set(machines, senders);
  }
  return senders;
}

/** A machine that sends these lines; one that sent nothing before needs a flag. */
export const withLines = (machine: Machine, lines: readonly SendLine[], pennant?: Pennant): Machine => ({
  ...machine,
  sends: { pennant: pennant ?? machine.sends!.pennant, lines },
});

/** The change that gives a sender other lines. */
export const changedLines = ({ machine }: Sender, lines: readonly SendLine[]): ProposedChange =>
  changed('machine', machine, withLines(machine, lines));
