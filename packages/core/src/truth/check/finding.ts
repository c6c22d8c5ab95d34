/** What a check finds: data that says what is wrong, with what evidence, and how it could be mended. */
import { integer, listOf, orNone, report, word, words, type ReportOf } from '../../base/field';
import { addressesOf, type EffectiveAddress, ipNumber, maskNumber } from '../../network/ip';
import { sendersOf, type Sender } from '../../network/flow';
import type { Plan } from '../../show/edit';
import type { Machine, Model, Network, ShowRecords } from '../../show/records';

export const WEIGHTS = ['must fix', 'look at'] as const;

export const finding = report('Finding', {
  rule: words('Name of the check that found it.'),
  weight: word(WEIGHTS),
  subjects: listOf(words(), 'Ids of the records that it is about.'),
  sentence: words(),
  evidence: listOf(words(), 'What was compared, line by line; may be empty.'),
  port: orNone(integer('The port of the first subject that it is about, as printed on the box.')),
  universe: orNone(integer('The show universe that it is about, or that would mend it.')),
});
export interface Finding extends ReportOf<typeof finding.fields> {}

export interface Repair {
  readonly label: string;
  readonly plan: Plan;
}

/** A machine with what the checks ask of it again and again. */
export interface KnownMachine {
  readonly machine: Machine;
  readonly model: Model | undefined;
  readonly addresses: readonly EffectiveAddress[];
}

/** The network as the checks see it; made once for all of them. */
export interface NetworkView {
  readonly records: ShowRecords;
  readonly machines: readonly KnownMachine[];
  readonly byId: ReadonlyMap<string, KnownMachine>;
  readonly byAddress: ReadonlyMap<string, KnownMachine>;
  readonly senders: readonly Sender[];
  readonly networks: readonly Network[];
  /** The plan of addresses in which an address lies; undefined if it lies in none */
  readonly networkOf: (address: number) => Network | undefined;
}

/** One check: what it finds, and how that could be mended. */
export interface Check {
  readonly rule: string;
  find(view: NetworkView): Iterable<Finding>;
  repairs(view: NetworkView, finding: Finding): Repair[];
}

export function viewOf(records: ShowRecords): NetworkView {
  const models = new Map(records.model.map((one) => [one.id, one]));
  const machines = records.machine.map((machine) => ({
    machine,
    model: machine.modelId === null ? undefined : models.get(machine.modelId),
    addresses: addressesOf(machine),
  }));
  const bases = records.network.map((network) => {
    const mask = maskNumber(network.prefix);
    return { network, mask, base: ((ipNumber(network.network) ?? 0) & mask) >>> 0 };
  });
  return {
    records,
    machines,
    byId: new Map(machines.map((one) => [one.machine.id, one])),
    byAddress: new Map(machines.flatMap((one) => one.addresses.map(({ text }) => [text, one] as const))),
    senders: sendersOf(records.machine),
    networks: records.network,
    networkOf: (address) => bases.find(({ base, mask }) => (address & mask) >>> 0 === base)?.network,
  };
}
