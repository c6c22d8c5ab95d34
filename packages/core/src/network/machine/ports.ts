/** Ports of machines: what they carry in words, what their model cannot do, and acts on many of them. */
import equal from 'fast-deep-equal';
import { formatPortAddress, type Protocol, protocolName } from '../../base/address';
import { ok, refuse, type Result } from '../../base/result';
import { changed, countOf, type Plan, type PlanLine } from '../../show/edit';
import {
  type LossOfSignal,
  type Machine,
  type MachinePort,
  type Model,
  PLAIN_PORT,
  type Universe,
} from '../../show/records';

/** A port whose values are its own. */
export const plainPort = (number: number, universe: number, protocol: Protocol = 'sacn'): MachinePort => ({
  ...PLAIN_PORT,
  number,
  use: 'out',
  protocol,
  universe,
});

/** The port that another one repeats, followed to its end; a circle of copies ends where it began. */
export function carriedBy(port: MachinePort, ports: readonly MachinePort[]): MachinePort {
  let at = port;
  for (let steps = 0; at.copyOf !== null && steps < ports.length; steps += 1)
    at = ports.find(({ number }) => number === at.copyOf) ?? at;
  return at;
}

/**
 * The number on the wire by which a port finds its universe: that of the show's universe, or, for one
 * that is not in the show, its own number counted as the protocol counts.
 */
export const wireNumber = (
  { universe, protocol }: Pick<MachinePort, 'universe' | 'protocol'>,
  universes: ReadonlyMap<number, Universe>,
): number => universes.get(universe)?.wire ?? (protocol === 'artnet' ? universe - 1 : universe);

/** What the device's own display calls a wire number: `Art-Net 0.1.2, shown as 19`. */
export function shownBy(port: Pick<MachinePort, 'protocol'>, wire: number, base: 0 | 1): string {
  if (port.protocol === 'sacn') return `sACN ${wire}`;
  return `Art-Net ${formatPortAddress(wire)}, shown as ${wire + base}`;
}

const seconds = (count: number): string => `${Number(count.toFixed(1))} s`;

export function lossText({ kind, after, over }: LossOfSignal): string {
  switch (kind) {
    case 'hold':
      return 'holds for ever';
    case 'hold-black':
      return after === 0 ? 'black at once' : `holds ${seconds(after)}, then black`;
    case 'fade':
      return `fades to black in ${seconds(over)}${after === 0 ? '' : ` after ${seconds(after)}`}`;
    case 'full':
      return after === 0 ? 'full' : `full after ${seconds(after)}`;
    case 'look':
      return after === 0 ? 'stored look' : `stored look after ${seconds(after)}`;
  }
}

export const MERGE_WORDS = {
  htp: 'highest wins',
  ltp: 'latest wins',
  priority: 'priority wins',
  none: 'no merge',
} as const;
export const START_WORDS = { black: 'black', wait: 'waits for signal', look: 'stored look' } as const;
export const USE_WORDS = { out: 'out', in: 'in', off: 'off', fixed: 'fixed value' } as const;

/** The settings of a port one by one, in words; what does not matter for its use is left out. */
export function portFacts(port: MachinePort): Map<string, string> {
  const facts = new Map<string, string>([['use', USE_WORDS[port.use]]]);
  if (port.label !== '') facts.set('label', port.label);
  if (port.use === 'off') return facts;
  if (port.use === 'fixed') return facts.set('value', String(port.fixed));
  if (port.copyOf !== null) return facts.set('copy of', `port ${port.copyOf}`);
  facts.set('protocol', protocolName(port.protocol)).set('universe', String(port.universe));
  if (port.use === 'in') return facts.set('priority', String(port.priority));
  return facts
    .set('merge', MERGE_WORDS[port.merge])
    .set('signal lost', lossText(port.loss))
    .set('start', START_WORDS[port.start])
    .set('rate', `${port.rate} Hz`)
    .set('RDM', port.rdm ? 'on' : 'off');
}

/** What differs between two sets of ports, one line a setting. */
export function portDifferences(
  name: string,
  before: readonly MachinePort[],
  after: readonly MachinePort[],
): PlanLine[] {
  const lines: PlanLine[] = [];
  const old = new Map(before.map((port) => [port.number, port]));
  for (const port of after) {
    const was = old.get(port.number);
    old.delete(port.number);
    if (was && equal(was, port)) continue;
    const [then, now] = [was ? portFacts(was) : new Map<string, string>(), portFacts(port)];
    for (const key of new Set([...then.keys(), ...now.keys()]))
      if (then.get(key) !== now.get(key))
        lines.push({
          subject: `${name}, port ${port.number}, ${key}`,
          before: then.get(key) ?? '',
          after: now.get(key) ?? 'not used',
        });
  }
  for (const { number } of old.values()) lines.push({ subject: `${name}, port ${number}`, before: 'there', after: '' });
  return lines;
}

/** Why a model cannot do what is asked of a port, one sentence a setting; empty if it can do all. */
export function whyNot(model: Model, port: MachinePort): string[] {
  const whys: string[] = [];
  const no = (why: string) => whys.push(`${model.maker} ${model.name} ${why}`);
  if (port.number > model.ports) no(`has ${countOf(model.ports, 'port')}, so no port ${port.number}.`);
  if (port.use === 'off') return whys;
  if (port.use === 'fixed') {
    if (!model.fixedValue) no('cannot put out a fixed value.');
    return whys;
  }
  if (!model.directions.includes(port.use)) no(port.use === 'in' ? 'has no inputs.' : 'has no outputs.');
  if (port.copyOf !== null) {
    if (!model.copies) no('cannot repeat one port at another.');
    return whys;
  }
  if (!model.protocols.includes(port.protocol)) no(`does not speak ${protocolName(port.protocol)}.`);
  if (port.use === 'in') return whys;
  if (!model.merges.includes(port.merge))
    no(
      model.merges.every((one) => one === 'none')
        ? 'cannot merge.'
        : `cannot merge so that ${MERGE_WORDS[port.merge]}.`,
    );
  if (!model.losses.includes(port.loss.kind)) no(`cannot do “${lossText(port.loss)}” when signal is lost.`);
  if (!model.starts.includes(port.start)) no(`cannot begin with “${START_WORDS[port.start]}”.`);
  if (port.rate > model.rate) no(`puts out at most ${model.rate} frames a second.`);
  if (port.rdm && !model.rdm) no('has no RDM.');
  return whys;
}

/** A port bent to what a model can do: what it cannot becomes the nearest that it can. */
export function fitPort(model: Model, port: MachinePort): MachinePort {
  const use = port.use === 'fixed' ? (model.fixedValue ? 'fixed' : 'off') : port.use;
  return {
    ...port,
    use: use === 'off' || use === 'fixed' || model.directions.includes(use) ? use : 'off',
    protocol: model.protocols.includes(port.protocol) ? port.protocol : (model.protocols[0] ?? port.protocol),
    merge: model.merges.includes(port.merge) ? port.merge : (model.merges[0] ?? 'none'),
    loss: model.losses.includes(port.loss.kind) ? port.loss : { ...port.loss, kind: model.losses[0] ?? 'hold' },
    start: model.starts.includes(port.start) ? port.start : (model.starts[0] ?? 'wait'),
    rate: Math.min(port.rate, model.rate),
    rdm: port.rdm && model.rdm,
    copyOf: model.copies ? port.copyOf : null,
  };
}

/** Ports for a machine of a model: those it has, and plain ones for the rest. */
export function portsFor(model: Model, there: readonly MachinePort[]): MachinePort[] {
  const known = new Map(there.map((port) => [port.number, port]));
  return Array.from(
    { length: model.ports },
    (_, i) => known.get(i + 1) ?? fitPort(model, { ...plainPort(i + 1, 1), use: 'off' }),
  );
}

export interface PortSet {
  /** Settings that all chosen ports get */
  readonly set: Partial<Omit<MachinePort, 'number' | 'universe'>>;
  /** Universe of the first chosen port, and how far each next one is from the one before */
  readonly from?: number | undefined;
  readonly step?: number | undefined;
}

/**
 * Sets many ports of one machine at once, in the order of their numbers. Settings that were not asked for follow
 * what the model can do; what was asked for and the model can't do is refused (`beyond-model`).
 */
export function setPorts(
  machine: Machine,
  numbers: readonly number[],
  { set, from, step = 1 }: PortSet,
  model?: Model,
): Result<Plan> {
  const chosen = new Set(numbers);
  let at = 0;
  const whys = new Set<string>();
  const ports = machine.ports.map((port) => {
    if (!chosen.has(port.number)) return port;
    const universe = from === undefined ? port.universe : from + step * at;
    at += 1;
    if (!model) return { ...port, ...set, universe };
    const next = { ...fitPort(model, { ...port, ...set, universe }), ...set, universe };
    for (const why of whyNot(model, next)) whys.add(why);
    return next;
  });
  if (whys.size > 0) return refuse('beyond-model', [...whys].join(' '));
  return planPorts(machine, ports, `Set ${countOf(at, 'port')} of ${machine.name}`);
}

/** A machine given other ports, told setting by setting. */
export function planPorts(machine: Machine, ports: readonly MachinePort[], sentence: string): Result<Plan> {
  const lines = portDifferences(machine.name, machine.ports, ports);
  if (lines.length === 0) return refuse('nothing', 'Nothing would change.');
  return ok({ sentence, changes: [changed('machine', machine, { ...machine, ports })], lines });
}
