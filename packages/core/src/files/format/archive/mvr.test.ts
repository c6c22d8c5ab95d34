import fc from 'fast-check';
import { strToU8 } from 'fflate';
import { nightFerry } from '../../../whole/demo';
import { patchFindings, rigOf } from '../../../rig/patch';
import { recordsAfter } from '../../../show/edit';
import { emptyShow, type Lamp, type ShowRecords } from '../../../show/records';
import { compareRig, fieldText, guidOf, mapType, planImport } from '../../arrival';
import { makeZip, type MvrContent, nextGround, openZip, readMvr, writeGdtf, writeMvr } from '.';

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

/** A scene of fixtures, each given by the elements within it. */
const sceneWith = (fixtures: readonly string[], more: { aux?: string; entries?: Record<string, Uint8Array> } = {}) =>
  makeZip({
    'sub/generalscenedescription.XML': strToU8(
      `<GeneralSceneDescription verMajor="1" verMinor="6"><Scene><AUXData>${more.aux ?? ''}</AUXData><Layers><Layer name="L" uuid="00000000-0000-4000-8000-00000000000a"><ChildList>${fixtures.join('')}</ChildList></Layer></Layers></Scene></GeneralSceneDescription>`,
    ),
    'gdtf/BALEEN@SPOT 16.gdtf': writeGdtf(spot),
    ...more.entries,
  });
const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const fixture = (n: number, inside: string, name = `F${n}`) =>
  `<Fixture name="${name}" uuid="${uuid(n)}"><GDTFSpec>Baleen@Spot 16.gdtf</GDTFSpec><GDTFMode> Basic  </GDTFMode>${inside}</Fixture>`;
const taken = (bytes: Uint8Array, into: ShowRecords = { ...emptyShow(), show: ferry.show }) => {
  const rig = rigOf(into);
  const content = contentOf(bytes);
  return recordsAfter(
    into,
    planImport(
      rig,
      { incoming: content, rows: compareRig(rig, content).filter(({ state }) => state !== 'gone'), sentence: 'In' },
      newId,
    ).changes,
  );
};

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

test('lamps are joined by their id first: swapped numbers never cross addresses', () => {
  const address = (at: number) => `<Addresses><Address break="0">${at}</Address></Addresses>`;
  const records = taken(
    sceneWith([
      fixture(1, `<FixtureID>1</FixtureID>${address(1)}`),
      fixture(2, `<FixtureID>2</FixtureID>${address(100)}`),
    ]),
  );
  const swapped = sceneWith([
    fixture(1, `<FixtureID>2</FixtureID>${address(1)}`),
    fixture(2, `<FixtureID>1</FixtureID>${address(100)}`),
  ]);
  const rows = compareRig(rigOf(records), contentOf(swapped)).filter((row) => row.kind === 'lamp');
  expect(rows.map(({ fields }) => fields.map(fieldText))).toEqual([['number 2 → 1'], ['number 1 → 2']]);
  expect(taken(swapped, records).lamp.map(({ name, number, channel }) => [name, number, channel])).toEqual([
    ['F1', 2, 1],
    ['F2', 1, 100],
  ]);
});

test('two fixtures under one id are two lamps, and that is said', () => {
  const { lamps, notes } = contentOf(
    sceneWith([fixture(1, '<FixtureID>1</FixtureID>'), fixture(1, '<FixtureID>2</FixtureID>', 'Other')]),
  );
  expect(lamps.map(({ uuid: id }) => id)).toEqual([uuid(1), '']);
  expect(notes.join()).toMatch(/1 fixture with the id of another.*Other/);
});

test('two types under one id are two', () => {
  const other = { ...spot, name: 'Spot 17', modes: spot.modes.slice(0, 1) };
  const { lamps, types } = contentOf(
    sceneWith([fixture(1, ''), fixture(2, '').replace('Spot 16', 'Spot 17')], {
      entries: { 'Baleen@Spot 17.gdtf': writeGdtf(other) },
    }),
  );
  expect(new Set(lamps.map(({ typeId }) => typeId)).size).toBe(2);
  expect(types.map(({ name }) => name).sort()).toEqual(['Spot 16', 'Spot 17']);
});

test('types of one name never share a file', () => {
  const twin = { ...spot, id: guidOf('twin'), modes: spot.modes.slice(0, 1) };
  const lamps = ferry.lamp
    .filter(({ typeId }) => typeId === spot.id)
    .slice(0, 2)
    .map((lamp, i) => ({ ...lamp, ...(i === 1 && { typeId: twin.id, mode: twin.modes[0]!.name }) }));
  const out = contentOf(writeMvr({ ...ferry, type: [spot, twin], lamp: lamps, run: [], machine: [] }, none));
  expect(new Set(out.lamps.map(({ typeId }) => typeId)).size).toBe(2);
});

test('what was never taken over, and what a leaner file lacks, stays in the scene; what was taken and removed goes', () => {
  const first = sceneWith([
    fixture(1, '<FixtureID>1</FixtureID>'),
    fixture(2, '<FixtureID>2</FixtureID>'),
    fixture(3, '<FixtureID>3</FixtureID>'),
    `<Truss name="Yardarm" uuid="${uuid(70)}"/>`,
  ]);
  const leaner = sceneWith([fixture(1, '<FixtureID>1</FixtureID>')]);
  const ground = nextGround(nextGround(undefined, first, new Set([uuid(1), uuid(2)])), leaner, new Set([uuid(1)]));
  const records = taken(leaner);
  const text = sceneOf(writeMvr(records, none, ground));
  expect([uuid(1), uuid(2), uuid(3)].map((id) => text.includes(id.toUpperCase()) || text.includes(id))).toEqual([
    true,
    false,
    true,
  ]);
  expect(text).toContain('Yardarm');
  const entries = openZip(writeMvr(records, none, ground));
  expect(entries.ok && Object.keys(entries.value).filter((name) => name.includes('taken'))).toEqual([]);
});

test('machines of the network and runs of pixels go out as fixtures with addresses of theirs', () => {
  const text = sceneOf(writeMvr(ferry, none));
  expect(text).toMatch(/<Network geometry="ethernet_1" ipv4="127\.0\.0\.\d+" subnetmask="255\.0\.0\.0" dhcp="off"\/>/);
  const run = ferry.run[0]!;
  expect(text).toContain(`<Fixture name="${run.name}"`);
});

test('runs of pixels come back as runs: with their controllers where those are, else at the addresses they had', () => {
  const file = writeMvr(ferry, none);
  const content = contentOf(file);
  expect(content.lamps.some(({ number }) => number === ferry.run[0]!.number)).toBe(false);
  const into = (records: ShowRecords) => {
    const rig = rigOf(records);
    const rows = compareRig(rig, content);
    const plan = planImport(rig, { incoming: content, rows, sentence: 'Imported' }, newId);
    return { rows, after: recordsAfter(records, plan.changes) };
  };
  const plain = ({ run: runs }: ShowRecords) =>
    [...runs].map((run) => ({ ...run, rev: 0 })).sort((a, b) => a.number - b.number);
  const back = into({ ...ferry, run: [], lamp: ferry.lamp });
  expect(plain(back.after)).toEqual(plain(ferry));
  expect(back.after.lamp).toHaveLength(ferry.lamp.length);

  const alone = into({ ...emptyShow(), show: ferry.show });
  expect(alone.after.run).toHaveLength(ferry.run.length);
  const spans = (records: ShowRecords) =>
    rigOf(records)
      .patch.all()
      .filter(({ run }) => run)
      .map(({ lamp, spans: its }) => [lamp.number, its[0]!.universe, its[0]!.channel])
      .sort(([a], [b]) => a! - b!);
  expect(spans(alone.after)).toEqual(spans(ferry));
  // The show that has them keeps its own.
  expect(into(ferry).rows.filter(({ kind }) => kind === 'run')).toEqual([]);
});

test('a scene that goes out unchanged keeps every element as it was', () => {
  const records = taken(foreign);
  const [before, after] = [sceneOf(foreign), sceneOf(writeMvr({ ...records, run: [], machine: [] }, none, foreign))];
  const plain = (text: string) =>
    text
      .replace(/<\?xml[^>]*>/, '')
      .replace(/>\s+</g, '><')
      .replace(/\s+/g, ' ')
      .trim();
  // What the file did not say as the standard has it is said now; nothing else is touched.
  const said = ' provider="Taxiarch" providerVersion="1"';
  expect(plain(after)).toContain(said);
  expect(plain(after).replace(said, '').replace('<FixtureIDNumeric>12</FixtureIDNumeric>', '')).toBe(plain(before));
});

test('any scene that goes out unchanged keeps every element of every fixture as it was', () => {
  const extra = fc.constantFrom(
    '<Gobo rotation="3">anchor.png</Gobo>',
    `<Focus>${uuid(90)}</Focus>`,
    '<CustomId>7</CustomId><CustomIdType>1</CustomIdType>',
    '<Color>0.3,0.3,50</Color>',
    '<Mappings><Mapping linkedDef="x"><ux>1</ux></Mapping></Mappings>',
    '<CastShadow>true</CastShadow>',
    '<!-- by hand -->',
  );
  const any = fc.record({
    number: fc.integer({ min: 1, max: 999 }),
    word: fc.constantFrom('', 'A', '7b '),
    at: fc.constantFrom('', '0', '3.100', '1071', '2.1'),
    matrix: fc.constantFrom('', '<Matrix>{0,1,0}{-1,0,0}{0,0,1}{100,200.5,-3}</Matrix>'),
    extras: fc.uniqueArray(extra, { maxLength: 4 }),
    deep: fc.integer({ min: 0, max: 5 }),
  });
  fc.assert(
    fc.property(fc.uniqueArray(any, { selector: ({ number }) => number, minLength: 1, maxLength: 6 }), (all) => {
      const scene = sceneWith(
        all.map(({ number, word, at, matrix, extras, deep }, i) => {
          const inside = `${matrix}<FixtureID>${word}${number}</FixtureID><FixtureIDNumeric>${number}</FixtureIDNumeric>${at && `<Addresses><Address break="0">${at}</Address></Addresses>`}${extras.join('')}`;
          const own = fixture(i + 1, inside);
          const group = (n: number) => `<GroupObject name="G${n}" uuid="${uuid(500 + i * 10 + n)}"><ChildList>`;
          return `${Array.from({ length: deep }, (_, n) => group(n)).join('')}${own}${'</ChildList></GroupObject>'.repeat(deep)}`;
        }),
      );
      const records = taken(scene);
      expect(records.lamp).toHaveLength(all.length);
      const out = writeMvr({ ...records, run: [], machine: [] }, none, scene);
      const plain = (bytes: Uint8Array) => {
        const entries = openZip(bytes);
        const name = entries.ok ? Object.keys(entries.value).find((one) => /description\.xml$/i.test(one))! : '';
        const text = entries.ok ? new TextDecoder().decode(entries.value[name]) : '';
        return text
          .replace(/<\?xml[^>]*>/, '')
          .replace(' provider="Taxiarch" providerVersion="1"', '')
          .replace(/>\s+</g, '><')
          .replace(/<(\w+)><\/\1>/g, '<$1/>')
          .replace(/\s+/g, ' ')
          .trim();
      };
      expect(plain(out)).toBe(plain(scene));
    }),
    { numRuns: 40 },
  );
});

test('a fixture that was left out is not overwritten by a lamp that has its number', () => {
  const scene = sceneWith([fixture(1, '<FixtureID>1</FixtureID>'), fixture(2, '<FixtureID>2</FixtureID>')]);
  const ground = nextGround(undefined, scene, new Set([uuid(1)]));
  const records = taken(sceneWith([fixture(1, '<FixtureID>1</FixtureID>')]));
  const own = { ...records.lamp[0]!, id: 'own', uuid: '', number: 2, name: 'Ours' };
  const names = contentOf(writeMvr({ ...records, lamp: [...records.lamp, own] }, none, ground)).lamps.map(
    ({ name }) => name,
  );
  expect(names.sort()).toEqual(['F1', 'F2', 'Ours']);
});
