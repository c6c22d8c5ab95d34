/** What well-formed records of the network look like. */
import { array, number, object, string } from 'yup';
import { flag, ipv4, list, name, oneOf, placeId, protocol, row, showUniverse, text, whole } from './fields';
import { ADDRESS_WAYS, LOSS_KINDS, MACHINE_KINDS, PORT_MERGES, PORT_USES, START_UPS } from './machines';

const id = (what: string) => text(what, 80).nullable().defined(`${what} is missing.`);
const words = (what: string, of: readonly string[]) => list(what, oneOf(what, of), 20);
const limit = (what: string, most: number) =>
  number()
    .strict()
    .typeError(`${what} must be a whole number, or left open.`)
    .integer(`${what} must be a whole number.`)
    .min(1, `${what} must be at least 1.`)
    .max(most, `${what} must be at most ${most}.`)
    .nullable()
    .defined(`${what} is missing.`);

const mac = text('The hardware address', 17)
  .matches(
    /^$|^([0-9a-f]{2}:){5}[0-9a-f]{2}$/,
    'A hardware address is six pairs of digits and letters, as in 02:7f:f1:00:00:31.',
  )
  .defined('The hardware address is missing.');
const seconds = (what: string) =>
  number()
    .strict()
    .typeError(`${what} must be a number of seconds.`)
    .min(0, `${what} cannot be less than nothing.`)
    .max(3600, `${what} can be an hour at most.`)
    .required(`${what} is missing.`);

const port = object({
  number: whole('The port', 1, 1024),
  use: oneOf('What the port does', PORT_USES),
  protocol,
  universe: showUniverse,
  label: text('The port’s label', 60).defined(),
  fixed: whole('The fixed value', 0, 255),
  rate: whole('The rate', 1, 44),
  rdm: flag('RDM'),
  copyOf: limit('The port to be copied', 1024),
  merge: oneOf('The merge', PORT_MERGES),
  loss: object({
    kind: oneOf('What happens when signal is lost', LOSS_KINDS),
    after: seconds('The time before'),
    over: seconds('The fade'),
  }).noUnknown(),
  start: oneOf('What leaves the port at the start', START_UPS),
  priority: whole('The priority', 0, 200),
}).noUnknown();

export const ports = list('The ports', port, 1024).test(
  'numbers',
  'Two ports of one machine have the same number.',
  (all) => new Set((all as { number: number }[]).map((one) => one.number)).size === (all as unknown[]).length,
);

export const network = object({
  ...row,
  name: name('The name of the address plan'),
  network: ipv4.required('The network is missing.'),
  prefix: whole('The mask’s length', 0, 30),
  dhcp: flag('Handing out of addresses'),
  standIn: flag('Being for stand-ins'),
  ranges: list(
    'The ranges',
    object({
      label: text('The range’s label', 60).defined(),
      kinds: words('The kinds', MACHINE_KINDS),
      placeId,
      first: ipv4.required('The range’s first address is missing.'),
      last: ipv4.required('The range’s last address is missing.'),
    }).noUnknown(),
    100,
  ),
});

export const model = object({
  ...row,
  maker: name('The maker'),
  name: name('The model’s name'),
  kind: oneOf('The kind', MACHINE_KINDS),
  ports: whole('The number of ports', 0, 64),
  connector: text('The connector', 60).defined(),
  directions: words('The directions', ['out', 'in']),
  protocols: list('The protocols', protocol, 2),
  merges: words('The merges', PORT_MERGES),
  losses: words('What it can do when signal is lost', LOSS_KINDS),
  starts: words('What it can do at the start', START_UPS),
  rdm: flag('RDM'),
  fixedValue: flag('Fixed values'),
  copies: flag('Copying of ports'),
  rate: whole('The rate', 1, 44),
  universes: limit('The most universes', 63_999),
  sources: whole('The most sources of a merge', 1, 64),
  parameters: limit('The allowance of parameters', 10_000_000),
  base: number().strict().oneOf([0, 1], 'A device counts from 0 or from 1.').required(),
  remote: flag('Setting by Art-Net'),
  ipProg: flag('Setting of its address'),
  perPage: number().strict().oneOf([1, 4], 'A page holds one port or four.').required(),
  groups: limit('The multicast groups', 100_000),
  speed: whole('The speed of its connector', 1, 1_000_000),
});

export const machine = object({
  ...row,
  name: name('The machine’s name'),
  kind: oneOf('The kind', MACHINE_KINDS),
  modelId: id('The model'),
  placeId,
  notes: text('The notes', 4000).defined(),
  firmware: text('The firmware', 40).defined(),
  mode: text('The mode', 60).defined(),
  serial: text('The serial number', 60).defined(),
  locked: flag('The lock'),
  interfaces: list(
    'The interfaces',
    object({
      name: text('The interface’s name', 60).defined(),
      mac,
      addresses: list(
        'The addresses',
        object({
          way: oneOf('How the address comes about', ADDRESS_WAYS),
          address: ipv4.defined(),
          prefix: whole('The mask’s length', 0, 32),
        }).noUnknown(),
        16,
      ),
    }).noUnknown(),
    16,
  ),
  ports,
  controller: object({
    firstUniverse: showUniverse,
    universes: whole('The universes', 1, 4096),
    outputs: whole('The outputs', 1, 1024),
    channelsPerOutput: whole('The channels an output drives', 1, 1_000_000),
  })
    .noUnknown()
    .nullable()
    .defined('The controller is missing.'),
  ticks: array()
    .strict()
    .of(string().strict().max(40).required())
    .max(40)
    .required('The steps ticked off are missing.'),
});

export const snapshot = object({
  ...row,
  name: name('The snapshot’s name'),
  at: text('The time', 40).required('The time is missing.'),
  machineId: id('The machine'),
  about: text('The description', 400).defined(),
  ports,
});
