/** Who sends each show universe, which ports carry it, and what lies on it, as the checks of the flow ask it. */
import { wireKey } from '../../base/address';
import { priorityOf, universesByWire, universesOf, type Sender } from '../../network/flow';
import { layRuns } from '../../rig/pixel';
import type { Machine, MachinePort, ShowRecords } from '../../show/records';
import type { KnownMachine, NetworkView } from './finding';

export interface Carrier {
  readonly known: KnownMachine;
  /** Null for a pixel controller, which takes the universe without a port of its own */
  readonly port: MachinePort | null;
}

/** A sender of one universe */
export interface SenderOf {
  readonly sender: Sender;
  readonly known: KnownMachine;
  /** At which it sends this universe */
  readonly priority: number;
}

export interface FlowView {
  readonly senders: ReadonlyMap<number, readonly SenderOf[]>;
  readonly carriers: ReadonlyMap<number, readonly Carrier[]>;
  /** Inputs that put a universe on the network */
  readonly inputs: ReadonlyMap<number, readonly Carrier[]>;
  /** Universes that a planned route makes */
  readonly routed: ReadonlySet<number>;
  /** Lamps and runs of pixels on each universe */
  readonly load: ReadonlyMap<number, number>;
}

const known = new WeakMap<NetworkView, FlowView>();

function put<T>(map: Map<number, T[]>, key: number, value: T): void {
  const there = map.get(key);
  if (there) there.push(value);
  else map.set(key, [value]);
}

function loadOf({ lamp, run, machine }: ShowRecords): Map<number, number> {
  const load = new Map<number, number>();
  const add = (universe: number) => load.set(universe, (load.get(universe) ?? 0) + 1);
  for (const { universe, blocks } of lamp) new Set([universe, ...blocks.map((at) => at.universe)]).forEach(add);
  for (const { segments } of layRuns(run, machine)) new Set(segments.map((at) => at.universe)).forEach(add);
  return load;
}

/** Made once for each view. */
export function flowOf(view: NetworkView): FlowView {
  const there = known.get(view);
  if (there) return there;
  const senders = new Map<number, SenderOf[]>();
  const carriers = new Map<number, Carrier[]>();
  const inputs = new Map<number, Carrier[]>();
  for (const sender of view.senders) {
    const machine = view.byId.get(sender.id)!;
    for (const universe of universesOf(sender))
      put(senders, universe, { sender, known: machine, priority: priorityOf(sender, universe) });
  }
  for (const one of view.machines) {
    for (const port of one.machine.ports) {
      if (port.use === 'out' && port.copyOf === null) put(carriers, port.universe, { known: one, port });
      if (port.use === 'in') put(inputs, port.universe, { known: one, port });
    }
    const limits = one.machine.controller;
    for (let i = 0; limits && i < limits.universes; i += 1)
      put(carriers, limits.firstUniverse + i, { known: one, port: null });
  }
  const planned = universesByWire(view.records.universe);
  const routed = new Set(view.records.route.flatMap(({ out }) => planned.get(wireKey(out))?.number ?? []));
  const flow = { senders, carriers, inputs, routed, load: loadOf(view.records) };
  known.set(view, flow);
  return flow;
}

/** A machine with one of its ports changed. */
export const withPort = (machine: Machine, number: number, change: Partial<MachinePort>): Machine => ({
  ...machine,
  ports: machine.ports.map((port) => (port.number === number ? { ...port, ...change } : port)),
});
