/** Every field of every kind of record can be met in the client, under the words of its description or others that are told here. */
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { DESCRIPTIONS, type Kind } from '@taxiarch/core/show/records';

const SOURCES = join(__dirname, '..');
const text = (readdirSync(SOURCES, { recursive: true }) as string[])
  .filter((file) => /\.tsx?$/.test(file) && !/\.test\.|testing/.test(file))
  .map((file) => readFileSync(join(SOURCES, file), 'utf8'))
  .join('\n');

/** Fields that the screens call otherwise than their description, and by what; or the act that changes them. */
const OTHERWISE: Readonly<Record<string, string>> = {
  'show.about': 'What it is',
  'place.order': '[...records.place].sort((a, b) => a.order',
  'type.modes': 'Add a mode',
  'universe.wire': 'Number on the wire',
  'lamp.typeId': 'Other type',
  'lamp.channel': 'Address, universe/channel',
  'lamp.blocks': 'Move it to the next gap',
  'lamp.groups': 'label="Group"',
  'lamp.tag': 'label="Colour"',
  'lamp.twin': 'Make twins',
  'lamp.locked': "? 'Unlock' : 'Lock'",
  'lamp.x': '${axes}, metres',
  'lamp.y': '${axes}, metres',
  'lamp.z': 'Up',
  'network.network': 'label="Subnet"',
  'network.prefix': 'label="Subnet"',
  'network.dhcp': 'hands out addresses (DHCP)',
  'network.standIn': 'Loopback for stand-ins: each address is a machine',
  'network.ranges': 'Ranges by kind',
  'model.fixedValue': 'Puts out fixed values',
  'model.copies': 'Repeats one port at another',
  'model.rate': 'Frames a second',
  'model.parameters': 'Allowance of parameters',
  'model.base': 'Its display counts Art-Net from 1',
  'model.remote': 'Its settings can be pushed by Art-Net',
  'model.ipProg': 'Its address can be pushed too',
  'model.perPage': 'Each port has a net and sub-net of its own',
  'model.groups': 'Multicast groups',
  'model.speed': 'Connector, Mbit/s',
  'machine.mode': "text('mode',",
  'machine.locked': 'Locked: nothing is pushed to it',
  'machine.ticks': '{ ...plan, ticks }',
  'run.bits': 'label="Resolution"',
  'run.perUniverse': 'Channels a universe',
  'run.whole': 'Keep each pixel within one universe',
  'run.reversed': 'Reversed: pixel 1 is the last one sent',
  'run.nullsSent': 'Null pixels take channels too',
  'run.from': 'First pixel',
  'run.to': 'Last pixel',
  'snapshot.at': 'snapshot.at',
  'snapshot.about': 'snapshot.about',
  'route.order': '[...records.route].sort((a, b) => a.order',
  'route.inputs': 'Remove input',
  'route.returns': 'The first gets it back',
  'route.out': 'To universe',
  'route.interface': 'Leaves by',
  'route.master': 'Master, 0 to 255',
  'route.parts': 'From channel',
  'route.sync': 'Let out together by sACN universe',
  'machine.line': 'Or reached at',
  'mark.timeCode': 'timeCodeOf(timeCodesOf(live',
  'route.comesBack': 'Comes back when Taxiarch starts again, if it ran when it ended',
  'control.does': 'Scales route',
  'control.wire': 'Input channel, ${name}',
  'control.target': 'Choose what it moves',
  'control.threshold': 'On from',
  'link.senderBase': 'The sender counts',
  'link.receiverBase': 'The visualiser counts',
  'link.lines': 'Remove line',
  'link.startsFirst': 'Which starts first',
  'model.priorityFirst': 'A higher priority gets in though it is full',
  'lamp.uid': 'UID {uid}',
  'lamp.uuid': 'Id in files: {lamp.uuid}',
  'type.pan': 'Pan, °',
  'type.tilt': 'Tilt, °',
  'type.beam': 'Beam angle, °',
  'type.field': 'Field angle, °',
  'type.unknown': 'for the type “{unknown.name}”',
  'arrival.at': 'An earlier version was imported on',
  'arrival.form': 'An earlier version was imported on',
  'arrival.heads': 'Heads in line ${table.headLine}',
  'arrival.left': 'what was decided',
  'arrival.fields': 'Leave some fields as they are',
  'lampSettings.name': 'kept.slice(0, 20)',
  'lampSettings.at': '{dayAndTime(at)}, {count(lamps',
  'lampSettings.lamps': 'count(lamps.length, ',
  'walk.by': '{walk.by}, {dayAndTime(walk.at)',
  'walk.at': '{walk.by}, {dayAndTime(walk.at)',
  'walk.covers': 'What failed last time',
  'mark.result': 'label="Proved"',
  'mark.why': 'What is wrong?',
  'mark.did': 'It does something else',
  'mark.knew': 'knew: latest.current.seq',
  'mark.by': '`${by}: ${result}',
  'mark.at': 'at = new Date().toISOString()',
  'mark.stood': 'Changed since: {row.changed',
  'proof.at': 'dayAndTime(at)',
  'proof.signed': '{signed.name}',
  'proof.seq': 'Edit {seq}',
  'proof.sha256': 'SHA-256 {sha256}',
  'proof.files': 'proofAddress(proof.id, format)',
  'proof.parts': 'What stands in it',
  'proof.sentence': '{sentence}',
  'good.at': 'good.at',
  'good.by': 'good.by',
  'good.states': 'states: now',
  'sighting.about': 'saw({ kind',
  'sighting.question': 'name, says,',
  'sighting.answer': 'I looked: it is well',
  'sighting.by': 'by || ',
  'sighting.at': 'nobody knows when',
};

const said = (words: string) => text.includes(words);
const fields = (Object.keys(DESCRIPTIONS) as Kind[]).flatMap((kind) =>
  Object.entries(DESCRIPTIONS[kind].fields).map(([name, { label }]) => [`${kind}.${name}`, label] as const),
);

test.each(fields)('%s can be met in the client', (field, label) => {
  const other = OTHERWISE[field];
  if (other === undefined) expect([field, said(`"${label}"`) || said(`'${label}'`)]).toEqual([field, true]);
  else expect([field, other, said(other)]).toEqual([field, other, true]);
});

test('no field is told of that is not there', () => {
  const known = new Set<string>(fields.map(([field]) => field));
  expect(Object.keys(OTHERWISE).filter((field) => !known.has(field))).toEqual([]);
});
