/** A planned machine: a box or a computer with interfaces, ports, and perhaps pixels behind it. */
import { SLOTS } from '../../base/address';
import { ipv4, placeId, showUniverse } from './common';
import {
  begun,
  flag,
  initialOf,
  list,
  name,
  nullable,
  oneOf,
  pattern,
  reference,
  shape,
  text,
  whole,
  type Of,
} from '../../base/field';
import { kindOf, type RecordFrom } from './kind';
import { MACHINE_KINDS } from './machineKinds';
import { ports } from './port';
import { sending, type Sending } from './sending';

/** How an address comes about: set by hand, from a server, made up by the machine, or from its hardware address. */
export const ADDRESS_WAYS = ['fixed', 'dhcp', 'link-local', 'hardware'] as const;
export type AddressWay = (typeof ADDRESS_WAYS)[number];

const plannedAddress = shape('Address', {
  way: oneOf('How it comes about', ADDRESS_WAYS, { what: 'How the address comes about' }),
  /** Dotted; empty while nobody knows it */
  address: ipv4(),
  prefix: whole('Length of the mask', 0, 32, { what: 'The mask’s length', unit: 'bits' }),
});
export interface PlannedAddress extends Of<typeof plannedAddress.fields> {}

const machineInterface = shape('Interface', {
  /** As printed on the box or named by its system; may be empty */
  name: text('Name', 60, { what: 'The interface’s name' }),
  mac: pattern(
    'Hardware address',
    17,
    /^$|^([0-9a-f]{2}:){5}[0-9a-f]{2}$/,
    'A hardware address is six pairs of digits and letters, as in 02:7f:f1:00:00:31.',
    { about: 'Empty while nobody knows it.' },
  ),
  addresses: list<PlannedAddress>('Addresses', plannedAddress, 16, { what: 'The addresses' }),
});
export interface MachineInterface extends Of<typeof machineInterface.fields> {}

/** What a pixel controller takes and drives. */
const controllerLimits = shape('Controller', {
  /** Show universe at which it begins to listen */
  firstUniverse: showUniverse('First universe'),
  universes: whole('Universes', 1, 4096, { what: 'The universes' }),
  outputs: whole('Outputs', 1, 1024, { what: 'The outputs' }),
  channelsPerOutput: whole('Channels of an output', 1, 1_000_000, { what: 'The channels an output drives' }),
});
export interface ControllerLimits extends Of<typeof controllerLimits.fields> {}

/** A plain DMX adapter: how its plug is reached, and what leaves it. */
const plugLine = shape('Line', {
  at: pattern(
    'Reached at',
    80,
    /^$|^[\w.-]{1,60}:\d{1,5}$/,
    'A port over the network is an address and a port number, as in 10.0.0.46:7217.',
    { about: 'Address and TCP port of a serial port by RFC 2217; empty for one in this computer.' },
  ),
  slots: whole('Slots', 24, SLOTS, { about: 'So many slots leave it in each frame.' }),
  routeId: nullable(
    reference('Route', { about: 'The route whose levels leave it; null for all that is heard of its universe.' }),
  ),
});
export interface PlugLine extends Of<typeof plugLine.fields> {}

export const machine = kindOf(
  { one: 'machine', many: 'machines', table: 'machine', schemaName: 'Machine' },
  {
    name: name('Name', { what: 'The machine’s name' }),
    kind: oneOf('Kind', MACHINE_KINDS),
    modelId: begun(nullable(reference('Model')), null),
    placeId,
    notes: begun(text('Notes', 4000, { what: 'The notes' }), ''),
    firmware: begun(text('Firmware', 40, { about: 'As the box shows it, `2.4`; empty if any will do.' }), ''),
    mode: begun(
      text('Mode of working', 60, { what: 'The mode', about: 'To be set at the box; empty if it has none.' }),
      '',
    ),
    serial: begun(
      text('Serial number', 60, {
        about: 'Of a USB adapter, which is known by it whatever socket it is in; else empty.',
      }),
      '',
    ),
    locked: begun(flag('Locked', { what: 'The lock', about: 'Nothing is pushed to a locked machine.' }), false),
    interfaces: begun(list<MachineInterface>('Interfaces', machineInterface, 16, { what: 'The interfaces' }), []),
    ports: begun(ports, []),
    /** Null for a machine that sends nothing of its own. */
    sends: begun<Sending | null>(nullable(sending), null),
    /** Null for a machine that drives no pixels. */
    controller: begun<ControllerLimits | null>(nullable(controllerLimits), null),
    /** Null for a machine that is no plain adapter. */
    line: begun<PlugLine | null>(nullable(plugLine), null),
    ticks: begun(
      list('Steps ticked off', text('Step', 40), 40, {
        what: 'The steps ticked off',
        about: 'Steps of bringing it on that a person has ticked off.',
      }),
      [],
    ),
  },
);

export interface Machine extends RecordFrom<typeof machine> {}

/** A machine before anybody says more of it. */
export const PLAIN_MACHINE = initialOf(machine.fields);
