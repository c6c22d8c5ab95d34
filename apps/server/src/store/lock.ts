/**
 * One process a data folder: the embedded database is destroyed by a second one. The lock is a
 * local socket named after the folder, which the system takes back when its holder ends, however
 * that happens; so there are no stale locks.
 */
import { createHash } from 'node:crypto';
import { realpathSync, unlinkSync } from 'node:fs';
import { connect, createServer, type Server } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

function lockName(folder: string): string {
  const name = `taxiarch-${createHash('sha256').update(realpathSync(folder)).digest('hex').slice(0, 24)}`;
  if (process.platform === 'win32') return `\\\\.\\pipe\\${name}`;
  return process.platform === 'linux' ? `\0${name}` : join(tmpdir(), `${name}.sock`);
}

function listenOn(name: string): Promise<Server> {
  return new Promise((resolve, reject) => {
    const server = createServer((socket) => socket.end());
    server.once('error', reject);
    server.listen(name, () => {
      server.unref();
      resolve(server);
    });
  });
}

const answers = (name: string): Promise<boolean> =>
  new Promise((resolve) => {
    const socket = connect(name, () => resolve(true)).once('error', () => resolve(false));
    socket.once('connect', () => socket.destroy());
  });

export class FolderInUse extends Error {}

/** Takes the lock of a folder that exists; rejects with {@link FolderInUse} if another process has it. */
export async function lockFolder(folder: string): Promise<{ release(): Promise<void> }> {
  const name = lockName(folder);
  let server: Server;
  try {
    server = await listenOn(name);
  } catch {
    if (process.platform !== 'darwin' || (await answers(name)))
      throw new FolderInUse(
        `The data folder ${folder} is open in another Taxiarch. Stop that one first, or choose another folder with --data.`,
      );
    unlinkSync(name);
    server = await listenOn(name);
  }
  return { release: () => new Promise((resolve) => server.close(() => resolve())) };
}
