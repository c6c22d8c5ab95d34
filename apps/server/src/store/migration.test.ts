/** Databases of earlier versions: what people had entered is still there afterwards. */
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { checkRecord } from '@taxiarch/core/show';

jest.setTimeout(60_000);

const FOLDER = join(__dirname, '../../drizzle');
const statements = (...names: string[]): string[] =>
  names.flatMap((name) => readFileSync(join(FOLDER, `${name}.sql`), 'utf8').split('--> statement-breakpoint'));

const ROWS = `INSERT INTO machine (id, rev, name, model, address, ports, controller) VALUES
  ('a', 4, 'Old node', 'Quad 4', '127.0.0.31', '[{"number":1,"direction":"out","protocol":"sacn","universe":7}]', NULL),
  ('b', 5, 'Old driver', '', '', '[]', '{"firstUniverse":1,"universes":2,"outputs":3,"channelsPerOutput":4}')`;

/** The database engine loads its parts as modules, which a test's sandbox does not allow: it runs beside. */
const program = (table: string) => `
  import { PGlite } from '@electric-sql/pglite';
  import { readFileSync } from 'node:fs';
  const engine = await PGlite.create();
  for (const statement of JSON.parse(readFileSync(0, 'utf8'))) await engine.exec(statement);
  const { rows } = await engine.query('SELECT * FROM ${table} ORDER BY id');
  console.log(JSON.stringify(rows));
`;

function rowsAfter(table: string, all: readonly string[]): Record<string, unknown>[] {
  const said = execFileSync(process.execPath, ['--input-type=module', '-e', program(table)], {
    cwd: join(__dirname, '../..'),
    input: JSON.stringify(all),
    encoding: 'utf8',
  });
  return JSON.parse(said) as Record<string, unknown>[];
}

const FIRST = statements('0000_first', '0001_rig');
const NETWORK = statements('0002_network', '0003_network-tidy');

test('a machine of before keeps its address, its ports and its model in words', () => {
  const machines = rowsAfter('machine', [...FIRST, ROWS, ...NETWORK]).map(
    ({ model_id: modelId, place_id: placeId, ...rest }) => ({ ...rest, modelId, placeId }),
  );
  for (const machine of machines) expect(checkRecord('machine', machine)).toMatchObject({ ok: true });
  expect(machines[0]).toMatchObject({
    kind: 'node',
    notes: 'Quad 4',
    interfaces: [{ addresses: [{ way: 'fixed', address: '127.0.0.31', prefix: 8 }] }],
    ports: [{ number: 1, use: 'out', universe: 7, merge: 'htp' }],
  });
  expect(machines[1]).toMatchObject({ kind: 'pixel controller', interfaces: [{ addresses: [] }], ports: [] });
});

test('a sender of before keeps its universes, as lines at its priority', () => {
  const rows = `INSERT INTO source (id, rev, name, address, universes, priority, pennant) VALUES
    ('a', 2, 'Desk', '127.0.0.21', '[1,2,3,9,9,11,10]', 120, '{"letter":"D","cut":"square","fill":"plain"}'),
    ('b', 3, 'Spare', '', '[]', 100, '{"letter":"S","cut":"square","fill":"plain"}')`;
  const [desk, spare] = rowsAfter('source', [
    ...FIRST,
    ...NETWORK,
    rows,
    ...statements('0004_outputs', '0005_outputs-tidy'),
  ]);
  expect(checkRecord('source', desk)).toMatchObject({ ok: true });
  expect(desk).toMatchObject({
    ranges: [
      { from: 1, count: 3, priority: 120, to: null },
      { from: 9, count: 3, priority: 120 },
    ],
  });
  expect(spare).toMatchObject({ ranges: [] });
});

test('models and links of before have what was taken for granted', () => {
  const before = [...FIRST, ...NETWORK, ...statements('0004_outputs', '0005_outputs-tidy')];
  const after = statements('0006_link-order-and-speed');
  const link = `INSERT INTO link (id, rev, name, source_id, machine_id, protocol, sender_base, receiver_base, lines, well)
    VALUES ('l', 3, 'Desk to screen', 's', 'm', 'artnet', 0, 1, '[]', '[]')`;
  const [linked] = rowsAfter('link', [...before, link, ...after]);
  expect(linked).toMatchObject({ starts_first: 'sender', receiver_base: 1 });
  const model = `INSERT INTO model (id, rev, maker, name, kind, ports, connector, directions, protocols, merges, losses,
      starts, rdm, fixed_value, copies, rate, sources, base, remote, ip_prog, per_page)
    VALUES ('a', 1, 'Marram', 'Own', 'node', 2, '', '[]', '[]', '[]', '[]', '[]', true, false, false, 44, 1, 0, true, true, 4)`;
  const [sheet] = rowsAfter('model', [...before, model, ...after]);
  expect(sheet).toMatchObject({ name: 'Own', speed: 100 });
});
