/** Memory of the server at rest, beside the embedded database alone. */
import { spawn } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root } from '../bundle.mjs';
import { ratio, wait, type Extent, type Figure } from './figure';
import { startServer, withServer } from './server';

/** Resident memory of a process, MB. */
const resident = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024;

async function alone(database: string, settle: number): Promise<number> {
  const program = spawn(
    process.execPath,
    [
      '--input-type=module',
      '-e',
      `import { PGlite } from '@electric-sql/pglite'; const db = await PGlite.create(${JSON.stringify(database)}); await db.query('select * from lamp'); setInterval(() => db, 1000);`,
    ],
    { cwd: root, stdio: 'inherit' },
  );
  const ended = new Promise((done) => program.once('exit', done));
  await wait(settle);
  const memory = resident(program.pid!);
  program.kill();
  await ended;
  return memory;
}

export async function measure(extent: Extent): Promise<Figure[]> {
  const figure = 'memory at rest, beside the embedded database alone';
  const asked = 'at most 1.6';
  if (process.platform !== 'linux') return [{ figure, asked, seen: 'read from /proc, so on Linux only', met: null }];
  const settle = extent.of(8000, 2000);
  const copy = mkdtempSync(join(tmpdir(), 'taxiarch-measure-db-'));
  try {
    const ours = await withServer([], async (first) => {
      // Begun once before, as the database alone is: making a new one takes more than opening it.
      await first.stop();
      const server = await startServer(first.folder);
      await wait(settle);
      const memory = resident(server.pid);
      await server.stop();
      cpSync(join(server.folder, 'database'), copy, { recursive: true });
      return memory;
    });
    const database = await alone(copy, settle);
    const seen = `${ratio(ours, database)} (${ours.toFixed(0)} MB, ${database.toFixed(0)} MB)`;
    return [{ figure, asked, seen, met: ours / database <= 1.6 }];
  } finally {
    rmSync(copy, { recursive: true, force: true });
  }
}
