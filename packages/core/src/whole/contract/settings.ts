/** Settings of this computer, kept in its data folder; not part of the show. */
import { SACN_LAST } from '../../base/address';
import {
  begun,
  flag,
  measure,
  name,
  optional,
  pattern,
  plain,
  shape,
  whole,
  type Field,
  type JsonSchema,
  type Of,
} from '../../base/field';

const interfaceChoice = (label: string, words: string, said: string, about: string) =>
  pattern(
    label,
    40,
    new RegExp(`^(${words}|\\d{1,3}(\\.\\d{1,3}){3})$`),
    `The interface must be ${said} or one of this computer’s addresses.`,
    { about },
  );

export const settings = shape(
  'Settings',
  {
    interface: begun(
      interfaceChoice(
        'Interface',
        'auto|plan',
        '“auto”, “plan”',
        'For sACN: an address of this computer, `auto`, or `plan` for the one that lies in a plan of addresses.',
      ),
      'plan',
    ),
    artnetInterface: begun(
      interfaceChoice('Interface for Art-Net', 'same|auto|plan', '“same”, “auto”, “plan”', 'The same, or `same`.'),
      'same',
    ),
    outputRate: begun(
      measure('Rate', 1, 44, {
        unit: 'Hz',
        type: 'a number of frames a second',
        below: 'must be at least 1 a second.',
        above: 'is too high: DMX512 carries at most 44 full frames a second.',
        about: 'Frames a second while taken values change.',
      }),
      44,
    ),
    outputPriority: begun(whole('Priority', 1, 200, { about: 'sACN priority of taken slots.' }), 150),
    outputSync: begun(
      whole('Let out together', 0, SACN_LAST, {
        about: 'Universe of the sACN synchronisation packets by which what is taken is let out together; 0 for none.',
      }),
      0,
    ),
    outputArtSync: begun(
      flag('ArtSync', { about: 'ArtSync after each round of what is taken, so that nodes let it out together.' }),
      false,
    ),
    artnetBroadcast: begun(
      flag('Art-Net to everybody', {
        about: 'Send Art-Net to the whole subnet instead of to the nodes that list the universe.',
      }),
      false,
    ),
    poll: begun(flag('Asks for nodes', { about: 'Ask for Art-Net nodes every few seconds.' }), true),
    listed: begun(
      flag('Listed as a node', {
        about: 'Answer polls as a node with an output for each Art-Net universe that is planned or opened.',
      }),
      true,
    ),
    listedMost: begun(whole('Most outputs listed', 1, 1020, { about: 'So many universes at most.' }), 256),
    mostGroups: begun(
      whole('Most multicast groups joined', 20, 63_999, {
        about:
          'So many sACN universes are listened to at most: what is opened and planned first, then what is announced.',
      }),
      4096,
    ),
    sendIpv6: begun(
      flag('sACN by IPv6 as well', {
        about: 'What is taken and routed is sent by IPv6 as well, on the same interface.',
      }),
      false,
    ),
    diagnostics: begun(
      flag('Asks nodes for diagnostics', { about: 'Polls ask nodes to send what they have to say of themselves.' }),
      false,
    ),
    changes: begun(
      flag('Asks nodes to tell of changes', { about: 'Polls ask nodes to answer again whenever something changes.' }),
      true,
    ),
    rdmShare: begun(
      whole('Share of a line for lamps', 1, 50, {
        unit: '%',
        about: 'So much of a port’s time at most is used to ask its lamps; the rest is DMX’s.',
      }),
      10,
    ),
    rollEvery: begun(
      whole('Roll call every', 0, 1440, {
        unit: 'min',
        about: 'Lamps are asked again by themselves after so many minutes; 0 only when somebody asks.',
      }),
      0,
    ),
    stations: begun(
      flag('Exchange of rigs', { about: 'This computer is a station of MVR-xchange on the interface for sACN.' }),
      false,
    ),
    stationName: begun(name('Name among stations', { what: 'The name among stations', longest: 60 }), 'Taxiarch'),
    stationGroup: begun(name('Group of stations', { what: 'The group of stations', longest: 60 }), 'Default'),
    citp: begun(
      flag('CITP', { about: 'Programs that speak CITP may ask for the patch, and are asked for theirs.' }),
      false,
    ),
    selects: begun(
      flag('Selecting together', {
        about: 'Lamps chosen here are selected in programs that speak CITP, and those selected there are marked here.',
      }),
      false,
    ),
    artnetTimeout: begun(
      whole('Time-out', 1000, 60_000, {
        unit: 'ms',
        about: 'Milliseconds after which a silent Art-Net stream counts as lost.',
      }),
      10_000,
    ),
  },
  { what: 'The settings' },
);
export interface Settings extends Of<typeof settings.fields> {}

const settingsSchema: JsonSchema = { ...settings.schema, $id: 'Settings' };
export const settingsReply = plain<Settings>(settingsSchema);
/** Any of them. */
export const settingsChange = shape(
  'Settings',
  Object.fromEntries(Object.entries<Field>(settings.fields).map(([key, field]) => [key, optional(field)])),
  { what: 'The settings' },
);
