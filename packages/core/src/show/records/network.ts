/** A plan of addresses: one subnet, and which machines live where in it. */
import { ipv4Given, placeId } from './common';
import { begun, flag, list, name, oneOf, shape, text, whole, type Of } from '../../base/field';
import { kindOf, type RecordFrom } from './kind';
import { MACHINE_KINDS } from './machineKinds';

/** Addresses for some machines: by kind or by place; the first range that fits takes a machine. */
export const addressRange = shape('Range', {
  label: begun(text('Label', 60, { what: 'The range’s label' }), ''),
  /** Empty for any kind */
  kinds: list('Kinds', oneOf('Kind', MACHINE_KINDS), 20, { what: 'The kinds' }),
  placeId,
  /** Dotted, both included */
  first: ipv4Given('First address'),
  last: ipv4Given('Last address'),
});
export interface AddressRange extends Of<typeof addressRange.fields> {}

export const network = kindOf(
  { one: 'address plan', many: 'address plans', table: 'network', schemaName: 'Network' },
  {
    name: name('Name', { what: 'The name of the address plan' }),
    /** Dotted, with the bits behind the prefix zero */
    network: ipv4Given('Network'),
    prefix: whole('Length of the mask', 0, 30, { what: 'The mask’s length', unit: 'bits' }),
    dhcp: flag('Addresses handed out', {
      what: 'Handing out of addresses',
      about: 'A machine of the show hands out addresses in it.',
    }),
    standIn: flag('For stand-ins', {
      what: 'Being for stand-ins',
      about: 'Loopback that carries stand-ins: each of its addresses is a machine of its own.',
    }),
    ranges: list<AddressRange>('Ranges', addressRange, 100, { what: 'The ranges' }),
  },
);

export interface Network extends RecordFrom<typeof network> {}
