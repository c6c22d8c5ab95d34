/** Builds the programs that are run: server, its threads and stand-ins as bundles; and the pattern of a database. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';
import { bundleOptions, out, root } from './bundle.mjs';

const PROGRAMS = {
  'server/main': 'apps/server/src/main.ts',
  'server/engine': 'apps/server/src/engine/engineThread.ts',
  'server/show': 'apps/server/src/show/showThread.ts',
  'server/paper': 'apps/server/src/paper/paperThread.ts',
  'server/whatif': 'apps/server/src/whatIf/whatIfThread.ts',
  'server/import': 'apps/server/src/imports/importThread.ts',
  'server/findings': 'apps/server/src/findings/findingsThread.ts',
  'server/receive': 'apps/server/src/receive/receiveThread.ts',
  'server/plug': 'apps/server/src/plug/plugThread.ts',
  'server/lock': 'apps/server/src/store/lock.ts',
  'standins/main': 'apps/standins/src/main.ts',
  'standins/visualiser': 'apps/standins/src/visualiser/main.ts',
};

export const programOptions = {
  ...bundleOptions,
  entryPoints: Object.entries(PROGRAMS).map(([name, file]) => ({ in: join(root, file), out: name })),
};

/** An empty database as a file: a new show begins from it. */
async function writeDatabasePattern(): Promise<void> {
  const { version } = JSON.parse(
    readFileSync(join(root, 'node_modules/@electric-sql/pglite/package.json'), 'utf8'),
  ) as { version: string };
  const file = join(out, 'server/database.tar');
  const mark = `${file}.version`;
  if (existsSync(file) && existsSync(mark) && readFileSync(mark, 'utf8') === version) return;
  const { PGlite } = await import('@electric-sql/pglite');
  const engine = await PGlite.create();
  const dump = await engine.dumpDataDir('none');
  await engine.close();
  writeFileSync(file, Buffer.from(await dump.arrayBuffer()));
  writeFileSync(mark, version);
}

export async function buildPrograms(): Promise<void> {
  await build(programOptions);
  await writeDatabasePattern();
}
