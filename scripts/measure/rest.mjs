/** Memory of the server at rest, beside the embedded database alone. */
import { spawn } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root } from '../build.mjs';
import { ratio, startServer, verdict, wait } from './server.mjs';

const SETTLE_MS = 8000;

/** Resident memory of a process, MB. */
function resident(pid) {
  const pages = Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))[1]);
  return pages / 1024;
}

export async function measure() {
  if (process.platform !== 'linux') return ['is read from /proc, so on Linux only'];
  // Begun once before, as the database alone is: making a new one takes more than opening it.
  const first = await startServer();
  await first.stop({ keep: true });
  const server = await startServer(first.folder);
  await wait(SETTLE_MS);
  const ours = resident(server.pid);
  const copy = mkdtempSync(join(tmpdir(), 'taxiarch-measure-db-'));
  cpSync(join(server.folder, 'database'), copy, { recursive: true });
  await server.stop();
  const alone = spawn(
    process.execPath,
    [
      '--input-type=module',
      '-e',
      `import { PGlite } from '@electric-sql/pglite'; const db = await PGlite.create(${JSON.stringify(copy)}); await db.query('select * from lamp'); setInterval(() => db, 1000);`,
    ],
    { cwd: root, stdio: 'inherit' },
  );
  await wait(SETTLE_MS);
  const database = resident(alone.pid);
  alone.kill();
  await wait(200);
  rmSync(copy, { recursive: true, force: true });
  return [
    `server at rest ${ours.toFixed(0)} MB, embedded database alone ${database.toFixed(0)} MB: ratio ${ratio(ours, database)} (at most 1.6: ${verdict(ours / database <= 1.6)})`,
  ];
}
