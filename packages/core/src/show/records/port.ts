/** A machine's DMX port as it is planned to be set. */
import { priority, protocol, showUniverse } from './common';
import {
  begun,
  flag,
  initialOf,
  list,
  measure,
  must,
  nullable,
  oneOf,
  shape,
  text,
  whole,
  type Of,
} from '../../base/field';

export const PORT_USES = ['out', 'in', 'off', 'fixed'] as const;
export type PortUse = (typeof PORT_USES)[number];

export const PORT_MERGES = ['htp', 'ltp', 'priority', 'none'] as const;
export type PortMerge = (typeof PORT_MERGES)[number];

/** Hold for ever, hold then black, fade to black, full, a look stored in the box. */
export const LOSS_KINDS = ['hold', 'hold-black', 'fade', 'full', 'look'] as const;
export type LossKind = (typeof LOSS_KINDS)[number];

/** What leaves a port from switching on until the first packet. */
export const START_UPS = ['black', 'wait', 'look'] as const;
export type StartUp = (typeof START_UPS)[number];

const seconds = (label: string, what: string) =>
  measure(label, 0, 3600, {
    what,
    unit: 's',
    type: 'a number of seconds',
    below: 'cannot be less than nothing.',
    above: 'can be an hour at most.',
  });

/** What a port does when its last source falls silent. */
const lossOfSignal = shape('Loss of signal', {
  kind: oneOf('When signal is lost', LOSS_KINDS, { what: 'What happens when signal is lost' }),
  after: seconds('After', 'The time before'),
  over: seconds('Over', 'The fade'),
});
export interface LossOfSignal extends Of<typeof lossOfSignal.fields> {}

/** Port numbers go no higher. */
export const MOST_PORTS = 1024;

export const machinePort = shape('Port', {
  /** As printed on the box, from 1 */
  number: whole('Port', 1, MOST_PORTS),
  use: oneOf('Use', PORT_USES, { what: 'What the port does' }),
  protocol,
  /** Show universe; kept while the port is off. */
  universe: showUniverse(),
  label: begun(text('Label', 60, { what: 'The port’s label' }), ''),
  fixed: begun(whole('Fixed value', 0, 255, { about: 'Level of all slots of a port whose use is `fixed`.' }), 255),
  rate: begun(whole('Rate', 1, 44, { unit: 'Hz' }), 40),
  rdm: begun(flag('RDM', { what: 'RDM' }), false),
  copyOf: begun(
    nullable(
      whole('Copy of port', 1, MOST_PORTS, {
        what: 'The port to be copied',
        about: 'The port whose output this one repeats; null for one of its own.',
      }),
    ),
    null,
  ),
  merge: begun(oneOf('Merge', PORT_MERGES), 'htp'),
  loss: begun<LossOfSignal>(lossOfSignal, { kind: 'hold', after: 0, over: 0 }),
  start: begun(oneOf('At the start', START_UPS, { what: 'What leaves the port at the start' }), 'wait'),
  priority: priority('Priority of an input'),
});
export interface MachinePort extends Of<typeof machinePort.fields> {}

/** A port before anybody says more of it. */
export const PLAIN_PORT = initialOf(machinePort.fields);

export const ports = must(
  list<MachinePort>('Ports', machinePort, MOST_PORTS, { what: 'The ports' }),
  'numbers',
  'Two ports of one machine have the same number.',
  (all) => new Set(all.map(({ number }) => number)).size === all.length,
);
