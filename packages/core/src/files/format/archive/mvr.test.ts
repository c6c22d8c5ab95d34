import { strToU8 } from 'fflate';
import { patchFindings, rigOf } from '../../../rig/patch';
import { recordsAfter } from '../../../show/edit';
import { emptyShow, type Lamp, type ShowRecords } from '../../../show/records';
import { compareRig, fieldText, mapType, planImport } from '../../arrival';
import { openZip, readMvr, writeGdtf, writeMvr } from '.';
import {
  newId,
  ferry,
  none,
  contentOf,
  sceneOf,
  spot,
  foreign,
  sceneWith,
  uuid,
  fixture,
  taken,
} from './testing/scenes';

/** Everything that an MVR file tells of a lamp. */
const told = ({ lamp, place, type }: ShowRecords) =>
  [...lamp]
    .sort((a, b) => a.number - b.number)
    .map((one) => ({
      number: one.number,
      name: one.name,
      type: type.find(({ id }) => id === one.typeId)?.name,
      mode: one.mode,
      at: [one.universe, one.channel, one.blocks],
      place: place.find(({ id }) => id === one.placeId)?.name,
      groups: one.groups,
      where: [one.x, one.y, one.z],
    }));

test('a rig goes out, and comes into an empty show equal: numbers, types, modes, addresses, places, groups, positions', () => {
  const empty = rigOf({ ...emptyShow(), show: ferry.show });
  const content = contentOf(writeMvr(ferry, none));
  expect(content.notes).toEqual([expect.stringMatching(/^19 fixtures without channels, so no lamps/)]);
  const rows = compareRig(empty, content).filter(({ kind }) => kind !== 'type');
  expect(rows.every(({ state }) => state === 'added')).toBe(true);
  const plan = planImport(empty, { incoming: content, rows, sentence: 'Imported' }, newId);
  const after = recordsAfter(empty.records, plan.changes);
  expect(told(after)).toEqual(told(ferry));
  expect(after.run).toHaveLength(ferry.run.length);
  expect(patchFindings(rigOf(after).patch, after.universe)).toEqual([]);
});

test('over the rig that it came from, every row is the same; what was altered there is told part by part', () => {
  const content = contentOf(writeMvr(ferry, none));
  expect(new Set(compareRig(rigOf(ferry), content).map(({ state }) => state))).toEqual(new Set(['same']));
  const altered = {
    ...ferry,
    lamp: ferry.lamp.slice(1).map((lamp, i): Lamp => (i === 0 ? { ...lamp, channel: 300, name: 'Bell' } : lamp)),
  };
  const extra = { ...ferry.lamp[0]!, id: 'more', number: 999, name: 'Buoy', universe: 8, channel: 400 };
  const rows = compareRig(rigOf({ ...altered, lamp: [...altered.lamp, extra] }), content).filter(
    ({ state }) => state !== 'same',
  );
  expect(rows.map(({ state, subject, fields }) => [state, subject, fields.map(fieldText)])).toEqual([
    ['added', '1 Wheelhouse lantern 1', ['address none → 1/1']],
    ['changed', '2 Wheelhouse lantern 2', ['name Bell → Wheelhouse lantern 2', 'address 1/300 → 1/2']],
    ['gone', '999 Buoy', ['address 8/400 → none']],
  ]);
});

test('a foreign scene: nested matrices, universe.address, numbers with letters', () => {
  const [lamp] = contentOf(foreign).lamps;
  expect(lamp).toMatchObject({
    number: 12,
    name: 'Masthead',
    mode: 'Basic',
    addresses: [{ universe: 2, channel: 100 }],
    place: 'Mast',
    groups: ['Yard'],
    x: 0.5,
    y: 2,
    z: 5,
  });
});

test('foreign parts are kept, and a lamp moved here is moved there within its own layer', () => {
  const empty = rigOf({ ...emptyShow(), show: ferry.show });
  const content = contentOf(foreign);
  const after = recordsAfter(
    empty.records,
    planImport(empty, { incoming: content, rows: compareRig(empty, content), sentence: 'In' }, newId).changes,
  );
  const moved = { ...after, lamp: after.lamp.map((lamp) => ({ ...lamp, x: 3, universe: 4, channel: 1 })) };
  const out = writeMvr(moved, none, foreign);
  const text = sceneOf(out);
  for (const part of ['provider="Somebody"', 'kept', 'Yardarm', '<Focus>F1</Focus>', 'anchor.png', 'name="Rail"'])
    expect(text).toContain(part);
  const entries = openZip(out);
  expect(entries.ok && entries.value['anchor.png']).toEqual(Uint8Array.of(7));
  const [again] = contentOf(out).lamps;
  expect(again).toMatchObject({
    x: 3,
    y: 2,
    z: 5,
    addresses: [{ universe: 4, channel: 1 }],
    groups: ['Yard'],
    place: 'Mast',
  });
  expect(sceneOf(writeMvr({ ...moved, lamp: [] }, none, foreign))).not.toContain('Masthead');
});

test('only the rows that are chosen are written', () => {
  const content = contentOf(writeMvr({ ...ferry, lamp: ferry.lamp.slice(0, 10) }, none));
  const rig = rigOf(ferry);
  const rows = compareRig(rig, content);
  const gone = rows.filter(({ state }) => state === 'gone');
  expect(gone).toHaveLength(410);
  const plan = planImport(rig, { incoming: content, rows: gone.slice(0, 2), sentence: 'Some' }, newId);
  expect(recordsAfter(ferry, plan.changes).lamp).toHaveLength(418);
});

test('progress is told while a scene is read', () => {
  const told: number[] = [];
  readMvr(writeMvr(ferry, none), (done) => told.push(done));
  expect(told[0]).toBe(0);
  expect(told[told.length - 1]).toBe(420 + ferry.run.length + ferry.machine.length);
});

test('names with folders and other capitals are found; modes with stray spaces are meant', () => {
  const { lamps, types, notes } = contentOf(sceneWith([fixture(1, '<FixtureID>1</FixtureID>')]));
  expect([lamps[0]!.mode, types[0]!.unknown, notes]).toEqual(['Basic', false, []]);
  const composed = 'Küste'.normalize('NFC');
  const bytes = sceneWith([fixture(1, '').replace('Baleen@Spot 16.gdtf', `${composed}.gdtf`)], {
    entries: { [`${'Küste'.normalize('NFD')}.gdtf`]: writeGdtf(spot) },
  });
  expect(contentOf(bytes).types[0]!.unknown).toBe(false);
});

test.each([
  '<Addresses/>',
  '<Addresses><Address break="0">0</Address></Addresses>',
  '<Addresses><Address break="0">none</Address></Addresses>',
  '',
])('a lamp with %s has no address, here and when it goes out', (addresses) => {
  const records = taken(sceneWith([fixture(1, `<FixtureID>1</FixtureID>${addresses}`)]));
  expect(records.lamp[0]).toMatchObject({ universe: 0, channel: 0 });
  expect(patchFindings(rigOf(records).patch, records.universe).map(({ sentence }) => sentence)).toEqual([
    'Lamp 1 has no address.',
  ]);
  expect(records.universe).toEqual([]);
  expect(contentOf(writeMvr(records, none)).lamps[0]!.addresses!.some(({ universe }) => universe > 0)).toBe(false);
});

test('words beside numbers, unit, position, class and function are kept, and go out again', () => {
  const bytes = sceneWith(
    [
      fixture(
        1,
        `<FixtureID>A12</FixtureID><UnitNumber>7</UnitNumber><Function>Front</Function><Position>${uuid(50)}</Position><Classing>${uuid(60)}</Classing>`,
      ),
      fixture(2, '<FixtureID>B1</FixtureID><FixtureIDNumeric>12</FixtureIDNumeric>'),
    ],
    { aux: `<Position uuid="${uuid(50)}" name="Foremast"/><Class uuid="${uuid(60)}" name="Deck"/>` },
  );
  const records = taken(bytes);
  const said = { written: 'A12', unit: '7', position: 'Foremast', class: 'Deck', function: 'Front' };
  // Number 12 is somebody’s; the one without a number gets the next.
  expect(records.lamp.find(({ written }) => written === 'A12')).toMatchObject({ ...said, number: 13 });
  expect(records.lamp.find(({ written }) => written === 'B1')).toMatchObject({ number: 12 });
  expect(contentOf(writeMvr(records, none)).lamps.find(({ written }) => written === 'A12')).toMatchObject(said);
});

test('without its types a scene is still lamps, which wait for types under the names that they were given', () => {
  const damaged = { 'broken.gdtf': strToU8('no archive') };
  const bytes = sceneWith(
    [
      fixture(1, '').replace('Baleen@Spot 16', 'Orrin@Lost'),
      fixture(2, '').replace('Baleen@Spot 16', 'broken'),
      fixture(3, '').replace('Basic', 'Nowhere'),
      fixture(4, ''),
    ],
    { entries: damaged },
  );
  const content = contentOf(bytes);
  const type = (typeId: string) => content.types.find(({ id }) => id === typeId)!;
  expect(content.lamps.map(({ typeId, mode }) => [type(typeId).name, type(typeId).unknown, mode])).toEqual([
    ['Lost', true, 'Basic'],
    ['broken', true, 'Basic'],
    ['Spot 16, mode “Nowhere”', true, 'Nowhere'],
    ['Spot 16', false, 'Basic'],
  ]);
  const records = taken(bytes);
  expect(records.lamp).toHaveLength(4);
  const mapped = mapType(
    rigOf(records),
    records.type.find(({ name }) => name === 'Lost')!,
    spot,
    { Basic: 'Extended' },
  );
  const after = mapped.ok ? recordsAfter(records, mapped.value.changes) : records;
  expect(after.lamp[0]).toMatchObject({ typeId: spot.id, mode: 'Extended' });
  expect(after.type.some(({ name }) => name === 'Lost')).toBe(false);
  // Its type goes out as it was named.
  expect(
    contentOf(writeMvr(records, none, bytes))
      .types.map(({ name }) => name)
      .sort(),
  ).toEqual([...['Lost', 'Spot 16', 'Spot 16, mode “Nowhere”', 'broken']]);
});
