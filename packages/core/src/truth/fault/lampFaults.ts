/** Faults of lamps and their cables: hands on the stand-in rig, found with what lamps answer and what people see. */
import type { Subject } from '../../show/records';
import type { Fault } from './faults';

export interface LampFault extends Fault {
  /** Ports whose lamps are asked again, as a person would who wonders about one of them */
  readonly asks: readonly { readonly address: string; readonly portAddress: number }[];
}

const CAR_DECK = '127.0.0.33';
const BOILER = '127.0.0.32';
const lamp = (number: number): Subject => ({ kind: 'lamp', id: `lamp-${number}`, part: '' });
type Answer = 'yes' | 'no';
const looked = (
  number: number,
  lit: Answer,
  right: Answer = lit,
  cables: readonly (readonly [string, Answer])[] = [],
) => ({
  [`lamp lamp-${number} lit`]: lit,
  [`lamp lamp-${number} right`]: right,
  ...Object.fromEntries(cables.map(([port, answer]) => [`port machine-${port} cable`, answer])),
});
const plugged = (...ports: readonly string[]) => ports.map((port) => [port, 'yes'] as const);
const fault = (
  id: string,
  says: string,
  cause: string,
  number: number,
  rig: object,
  sees: Fault['sees'],
  asks: LampFault['asks'],
): LampFault => ({ id, says, causes: [cause], at: lamp(number), hands: [{ id: 'rig', rig }], sees, asks });

export const LAMP_FAULTS: readonly LampFault[] = [
  fault(
    'lamp-address',
    'Port spot 3 is set to another address',
    'lamp-address',
    103,
    { lamps: ['103'], address: 200 },
    looked(103, 'no', 'no', plugged('car-deck 1', 'foredeck 2')),
    [{ address: CAR_DECK, portAddress: 2 }],
  ),
  fault(
    'lamp-shifted',
    'Port wash 4 is set one channel off',
    'lamp-shifted',
    134,
    { lamps: ['134'], address: 1 + 3 * 14 + 1 },
    looked(134, 'yes', 'no'),
    [{ address: CAR_DECK, portAddress: 4 }],
  ),
  fault(
    'lamp-mode',
    'Saloon petal 1 is in another mode',
    'lamp-mode',
    441,
    { lamps: ['441'], mode: 1 },
    looked(441, 'yes', 'no'),
    [{ address: CAR_DECK, portAddress: 7 }],
  ),
  fault(
    'lamp-elsewhere',
    'Starboard spot 5 hangs on the cable of the port spots',
    'lamp-elsewhere',
    205,
    { lamps: ['205'], plug: { box: 'car-deck', port: 1 } },
    looked(205, 'no', 'no', plugged('car-deck 2')),
    [
      { address: CAR_DECK, portAddress: 2 },
      { address: CAR_DECK, portAddress: 3 },
    ],
  ),
  fault(
    'lamp-dead',
    'Boiler petal 5 has no power',
    'lamp-dead',
    305,
    { lamps: ['305'], faults: { missing: true } },
    looked(305, 'no', 'no', plugged('boiler 1')),
    [{ address: BOILER, portAddress: 6 }],
  ),
  fault(
    'lamp-deaf',
    'Boiler petal 6 takes DMX and answers nothing',
    'lamp-deaf',
    306,
    { lamps: ['306'], faults: { deaf: true } },
    looked(306, 'yes', 'yes', plugged('boiler 1')),
    [{ address: BOILER, portAddress: 6 }],
  ),
  fault(
    'lamp-cable',
    'The DMX cable of the catwalk battens is out at the node',
    'port-cable',
    385,
    { line: { box: 'boiler', port: 2, cut: 0 } },
    looked(385, 'no', 'no', [['boiler 2', 'no']]),
    [{ address: BOILER, portAddress: 8 }],
  ),
];
