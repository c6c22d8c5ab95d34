/** Where universes leave: ports given to them, at a machine of the show or at one that is made for it. */
import { formatUniverses } from '../../base/address';
import { countOf, put, type Plan, type PlanLine } from '../../show/edit';
import { plainPort } from '../machine';
import { checkRecord, type Machine, type MachinePort, type Model, type ShowRecords } from '../../show/records';
import { ok, refuse, type Result } from '../../base/result';

/** Ports that could carry a universe and carry none: those that are off, and can put out. */
export const freePorts = (machine: Machine, model: Model | undefined): readonly MachinePort[] =>
  machine.ports.filter(({ use }) => use === 'off' && (!model || model.directions.includes('out')));

/** Ports of a machine whose model nobody knows: as many as are asked for, those it has first, the rest off. */
export const portsOfNumber = (there: readonly MachinePort[], count: number): MachinePort[] => {
  const known = new Map(there.map((port) => [port.number, port]));
  return Array.from({ length: count }, (_, i) => known.get(i + 1) ?? { ...plainPort(i + 1, 1), use: 'off' });
};

/**
 * Gives universes, in their order, the free ports of a machine, in theirs. `before` is undefined for a
 * machine that is made by this.
 */
export function planOutlets(
  { universe, model }: Pick<ShowRecords, 'universe' | 'model'>,
  before: Machine | undefined,
  machine: Machine,
  universes: readonly number[],
): Result<Plan> {
  const its = model.find(({ id }) => id === machine.modelId);
  const free = freePorts(machine, its);
  if (universes.length === 0) return refuse('nothing', 'Say which universes: 1-8, or 1-8, 12.');
  if (free.length < universes.length)
    return refuse(
      'not-possible',
      `${machine.name} has ${countOf(free.length, 'free port')} for ${countOf(universes.length, 'universe')}.`,
    );
  const planned = new Map(universe.map((one) => [one.number, one]));
  const carry = new Map<number, MachinePort>();
  for (const [i, number] of universes.entries()) {
    const one = planned.get(number);
    if (!one) return refuse('not-found', `Universe ${number} is not in the show.`);
    if (its && !its.protocols.includes(one.protocol))
      return refuse('not-possible', `${machine.name} does not speak the protocol of universe ${number}.`);
    const port = free[i]!;
    carry.set(port.number, { ...port, use: 'out', protocol: one.protocol, universe: number });
  }
  const after: Machine = { ...machine, ports: machine.ports.map((port) => carry.get(port.number) ?? port) };
  const checked = checkRecord('machine', after);
  if (!checked.ok) return refuse('not-understood', checked.why);
  const numbers = formatUniverses([...carry.keys()]);
  const carried = `universe${universes.length === 1 ? '' : 's'} ${formatUniverses(universes)} on port${carry.size === 1 ? '' : 's'} ${numbers}`;
  const lines: PlanLine[] = [
    ...(before
      ? []
      : [
          { subject: machine.name, before: '', after: `${machine.kind} with ${countOf(machine.ports.length, 'port')}` },
        ]),
    ...[...carry.values()].map(({ number, universe: shown }) => ({
      subject: `${machine.name}, port ${number}`,
      before: before ? 'off' : '',
      after: `universe ${shown}`,
    })),
  ];
  return ok({
    sentence: before ? `Put ${carried} of ${machine.name}` : `Added ${machine.name} and put ${carried}`,
    changes: [put('machine', before, after)],
    lines,
  });
}
