import { strToU8 } from 'fflate';
import { nightFerry } from '../../demo';
import { patchFindings, rigOf } from '../../patch';
import { recordsAfter } from '../../edit';
import { emptyShow, type Lamp, type ShowRecords } from '../../records';
import { compareRig, planImport } from '..';
import { makeZip, type MvrContent, openZip, readMvr, writeGdtf, writeMvr } from '.';

let ids = 0;
const newId = () => `new-${(ids += 1)}`;
const ferry = nightFerry();
const none = () => undefined;
const contentOf = (bytes: Uint8Array): MvrContent => {
  const content = readMvr(bytes);
  if (!content.ok) throw new Error(content.why);
  return content.value;
};
const sceneOf = (bytes: Uint8Array) => {
  const entries = openZip(bytes);
  return entries.ok ? new TextDecoder().decode(entries.value['GeneralSceneDescription.xml']) : '';
};
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
  expect(content.notes).toEqual([]);
  const rows = compareRig(empty, content);
  expect(rows.every(({ state }) => state === 'added')).toBe(true);
  const plan = planImport(empty, content, rows, 'Imported', newId);
  const after = recordsAfter(empty.records, plan.changes);
  expect(told(after)).toEqual(told(ferry));
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
  expect(rows.map(({ state, subject, says }) => [state, subject, says])).toEqual([
    ['added', '1 Wheelhouse lantern 1', ['at 1/1']],
    ['changed', '2 Wheelhouse lantern 2', ['name Bell → Wheelhouse lantern 2', 'address 1/300 → 1/2']],
    ['gone', '999 Buoy', ['at 8/400']],
  ]);
});

const spot = ferry.type.find(({ id }) => id === 'type-spot-16')!;
const FOREIGN = `<GeneralSceneDescription verMajor="1" verMinor="5">
  <UserData><Data provider="Somebody">kept</Data></UserData>
  <Scene><AUXData><Position uuid="P1" name="Rail"/></AUXData><Layers>
    <Layer name="Mast" uuid="L1"><Matrix>{0,1,0}{-1,0,0}{0,0,1}{1000,0,5000}</Matrix><ChildList>
      <GroupObject name="Yard" uuid="G1"><Matrix>{1,0,0}{0,1,0}{0,0,1}{0,500,0}</Matrix><ChildList>
        <Fixture name="Masthead" uuid="11111111-2222-4333-8444-555555555555">
          <Matrix>{1,0,0}{0,1,0}{0,0,1}{2000,0,0}</Matrix>
          <GDTFSpec>Baleen@Spot 16.gdtf</GDTFSpec><GDTFMode>Basic</GDTFMode>
          <Focus>F1</Focus><FixtureID>12a</FixtureID><Gobo rotation="3">anchor.png</Gobo>
          <Addresses><Address break="0">2.100</Address></Addresses>
        </Fixture>
        <Truss name="Yardarm" uuid="T1"/>
      </ChildList></GroupObject>
    </ChildList></Layer>
  </Layers></Scene>
</GeneralSceneDescription>`;
const foreign = makeZip({
  'GeneralSceneDescription.xml': strToU8(FOREIGN),
  'Baleen@Spot 16.gdtf': writeGdtf(spot),
  'anchor.png': Uint8Array.of(7),
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
    planImport(empty, content, compareRig(empty, content), 'In', newId).changes,
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
  const plan = planImport(rig, content, gone.slice(0, 2), 'Some', newId);
  expect(recordsAfter(ferry, plan.changes).lamp).toHaveLength(418);
});

test('progress is told while a scene is read', () => {
  const told: number[] = [];
  readMvr(writeMvr(ferry, none), (done) => told.push(done));
  expect(told[0]).toBe(0);
  expect(told[told.length - 1]).toBe(420);
});
