/** A plain DMX adapter as it is planned: what leaves or comes by its plug, and how that is reached. */
import { changed, put, type Plan } from '../../show/edit';
import { PLAIN_MACHINE, PLAIN_PORT, type LossOfSignal, type Machine, type PlugLine } from '../../show/records';
import { ok, refuse, type Result } from '../../base/result';

/** An adapter in the words of its form. */
export interface AdapterPlan {
  readonly name: string;
  readonly use: 'out' | 'in';
  /** Show universe */
  readonly universe: number;
  /** Frames a second, 1–44 */
  readonly rate: number;
  /** Of an input, 1–200 */
  readonly priority: number;
  readonly loss: LossOfSignal;
  /** Before anybody sent: nothing leaves it (`wait`), or zeros do (`black`) */
  readonly start: 'wait' | 'black';
  readonly serial: string;
  readonly line: PlugLine;
}

export const isAdapter = ({ kind, line }: Machine): boolean => kind === 'USB adapter' || line !== null;

export const NEW_ADAPTER: AdapterPlan = {
  name: '',
  use: 'out',
  universe: 1,
  rate: 40,
  priority: PLAIN_PORT.priority,
  loss: PLAIN_PORT.loss,
  // As a plain adapter does: whoever looks at its far end sees at once that frames come.
  start: 'black',
  serial: '',
  line: { at: '', slots: 512, routeId: null },
};

export function adapterPlanOf({ name, ports, serial, line }: Machine): AdapterPlan {
  const [port] = ports;
  if (!port) return { ...NEW_ADAPTER, name, serial, line: line ?? NEW_ADAPTER.line };
  const { use, universe, rate, priority, loss } = port;
  // A plain adapter keeps no look.
  const start = port.start === 'black' ? 'black' : 'wait';
  return {
    ...{ name, use: use === 'in' ? 'in' : 'out', universe, rate, priority, loss, start, serial },
    line: line ?? NEW_ADAPTER.line,
  };
}

/** The edit that makes an adapter so; others are asked for a serial number or an address that is used already. */
export function putAdapter(
  before: Machine | undefined,
  id: string,
  adapter: AdapterPlan,
  machines: readonly Machine[],
): Result<Plan> {
  const { name, use, universe, rate, priority, loss, start, serial, line } = adapter;
  if (name.trim() === '') return refuse('not-understood', 'Give the adapter a name.');
  if (serial.trim() === '' && line.at.trim() === '')
    return refuse('not-found', 'Say by which serial number it is known, or at which address of the network it is.');
  const twin = machines.find(
    (one) =>
      one.id !== id &&
      ((line.at !== '' && one.line?.at === line.at) || (line.at === '' && serial !== '' && one.serial === serial)),
  );
  if (twin) return refuse('taken', `${twin.name} has this plug already.`);
  const port = { ...(before?.ports[0] ?? { ...PLAIN_PORT, number: 1, protocol: 'sacn', merge: 'none' as const }) };
  const machine: Machine = {
    ...(before ?? { ...PLAIN_MACHINE, id, rev: 0, kind: 'USB adapter', placeId: null }),
    name: name.trim(),
    serial: serial.trim(),
    line: { ...line, at: line.at.trim(), routeId: use === 'in' ? null : line.routeId },
    ports: [
      { ...port, use, universe, rate, priority, loss, start, number: port.number },
      ...(before?.ports.slice(1) ?? []),
    ] as Machine['ports'],
  };
  const carries = (one: Machine) => {
    const plan = adapterPlanOf(one);
    return `${plan.use === 'out' ? 'sends' : 'takes in'} universe ${plan.universe} by ${plan.line.at || plan.serial}, ${plan.rate} frames a second of ${plan.line.slots} slots`;
  };
  return ok({
    sentence: before ? `Changed the adapter ${machine.name}` : `Added the adapter ${machine.name}`,
    changes: [before ? changed('machine', before, machine) : put('machine', undefined, machine)],
    lines: [{ subject: machine.name, before: before ? carries(before) : '', after: carries(machine) }],
  });
}
