/** What an MVR scene keeps: ids, what was never taken over, machines and runs, and every element as it was. */
import fc from 'fast-check';
import { rigOf } from '../../../rig/patch';
import { recordsAfter } from '../../../show/edit';
import { emptyShow, type ShowRecords } from '../../../show/records';
import { compareRig, fieldText, guidOf, planImport } from '../../arrival';
import { nextGround, openZip, writeGdtf, writeMvr } from '.';
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
