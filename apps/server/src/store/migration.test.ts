/** Databases of before the network was planned: what people had entered is still there afterwards. */
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
const PROGRAM = `
  import { PGlite } from '@electric-sql/pglite';
  import { readFileSync } from 'node:fs';
  const engine = await PGlite.create();
  for (const statement of JSON.parse(readFileSync(0, 'utf8'))) await engine.exec(statement);
  const { rows } = await engine.query('SELECT * FROM machine ORDER BY id');
  console.log(JSON.stringify(rows));
`;

test('a machine of before keeps its address, its ports and its model in words', () => {
  const input = JSON.stringify([
    ...statements('0000_first', '0001_rig'),
    ROWS,
    ...statements('0002_network', '0003_network-tidy'),
  ]);
  const said = execFileSync(process.execPath, ['--input-type=module', '-e', PROGRAM], {
    cwd: join(__dirname, '../..'),
    input,
    encoding: 'utf8',
  });
  const machines = (JSON.parse(said) as Record<string, unknown>[]).map(
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
