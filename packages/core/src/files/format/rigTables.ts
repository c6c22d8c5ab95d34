/** Tables of lamps, channels and pixels, for other programs. */
import { formatAddress, isAddressed, toAbsolute } from '../../base/address';
import { attributeLabel } from '../../rig/fixture';
import { addressesOf, type Patch, slotsOf } from '../../rig/patch';
import { absoluteEnds, pixelAccount } from '../../rig/pixel';
import type { ShowRecords } from '../../show/records';
import type { TableContent } from './table';

/** Millimetres */
const DECIMALS = 3;

/** One line a lamp; what has no address has an empty cell. */
export function lampTable({ lamp, type, place }: ShowRecords): TableContent {
  const types = new Map(type.map((one) => [one.id, one]));
  const places = new Map(place.map(({ id, name }) => [id, name]));
  const rows = [...lamp]
    .sort((a, b) => a.number - b.number)
    .map((one) => {
      const its = types.get(one.typeId);
      return [
        one.number,
        one.name,
        its?.maker ?? '',
        its?.name ?? '',
        one.mode,
        addressesOf(one).filter(isAddressed).map(formatAddress).join(' + '),
        isAddressed(one) ? toAbsolute(one) : '',
        places.get(one.placeId ?? '') ?? '',
        one.groups.join('; '),
        ...[one.written, one.unit, one.position, one.class, one.function, one.gel, one.circuit, one.notes],
        ...[one.x, one.y, one.z].map((metres) => Number(metres.toFixed(DECIMALS))),
      ];
    });
  const paper = [
    'Number as written',
    'Unit number',
    'Hanging position',
    'Class',
    'Function',
    'Gel',
    'Circuit',
    'Notes',
  ];
  return {
    heads: [
      'Number',
      'Name',
      'Maker',
      'Type',
      'Mode',
      'Address',
      'Absolute',
      'Place',
      'Group',
      ...paper,
      'X',
      'Y',
      'Z',
    ],
    rows,
  };
}

/** Every slot that carries something: where, whose, what. */
export function channelTable(patch: Patch): TableContent {
  const rows = [...patch.all()].flatMap((patched) =>
    patched.mode.channels.flatMap((channel) =>
      slotsOf(patched, channel).map((at, byte) => [
        formatAddress(at),
        toAbsolute(at),
        patched.lamp.number,
        patched.lamp.name,
        channel.attribute,
        attributeLabel(channel.attribute),
        channel.cell ?? '',
        byte === 0 ? 'coarse' : 'fine',
      ]),
    ),
  );
  rows.sort((a, b) => Number(a[1]) - Number(b[1]));
  return { heads: ['Address', 'Absolute', 'Number', 'Name', 'Attribute', 'In words', 'Cell', 'Byte'], rows };
}

export function pixelTable({ run, machine }: Pick<ShowRecords, 'run' | 'machine'>): TableContent {
  const rows = pixelAccount(run, machine).runs.map((one) => [
    one.run.number,
    one.run.name,
    one.run.count,
    one.run.order,
    one.run.bits,
    one.channels,
    one.universes.join(' '),
    one.first ? formatAddress(one.first) : '',
    one.last ? formatAddress(one.last) : '',
    ...(absoluteEnds(one, 1) ?? ['', '']),
    ...(absoluteEnds(one, 0) ?? ['', '']),
    one.controller,
    one.run.output ?? '',
    one.run.nulls,
    one.run.reversed ? 'yes' : 'no',
  ]);
  return {
    heads: [
      'Number',
      'Name',
      'Pixels',
      'Order',
      'Bits',
      'Channels',
      'Universes',
      'First',
      'Last',
      'First absolute from 1',
      'Last absolute from 1',
      'First absolute from 0',
      'Last absolute from 0',
      'Controller',
      'Output',
      'Null pixels',
      'Reversed',
    ],
    rows,
  };
}
