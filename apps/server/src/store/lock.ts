/**
 * One process a data folder: the embedded database is destroyed by a second one. The lock is a
 * local socket named after the folder, which the system takes back when its holder ends, however
 * that happens; so there are no stale locks. Containers that share a folder do not share such
 * sockets: for them a file in the folder says who has it, and is touched as long as that is so.
 */
import { createHash, randomUUID } from 'node:crypto';
import { readFileSync, readlinkSync, realpathSync, statSync, unlinkSync, utimesSync, writeFileSync } from 'node:fs';
import { hostname, tmpdir } from 'node:os';
import { connect, createServer, type Server } from 'node:net';
import { join } from 'node:path';

/** The file is touched this often; one that is not for {@link STALE_MS} belongs to nobody any more. */
const TOUCH_MS = 1000;
const STALE_MS = 4000;

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

const inUse = (folder: string, where = 'another Taxiarch'): FolderInUse =>
  new FolderInUse(
    `The data folder ${folder} is open in ${where}. Stop that one first, or choose another folder with --data.`,
  );

/** Names what shares local sockets with this process: within it the socket alone is the lock. */
function realm(): string {
  try {
    const boot = readFileSync('/proc/sys/kernel/random/boot_id', 'utf8').trim();
    return `${boot} ${readlinkSync('/proc/self/ns/net')}`;
  } catch {
    return hostname();
  }
}

interface Holder {
  readonly id: string;
  readonly realm: string;
}

function holderIn(file: string): Holder | undefined {
  try {
    return JSON.parse(readFileSync(file, 'utf8')) as Holder;
  } catch {
    return undefined;
  }
}

const touchedAt = (file: string): number => statSync(file, { throwIfNoEntry: false })?.mtimeMs ?? 0;

/** Whether somebody goes on touching the file; clocks of several computers need not agree, so it is watched. */
async function isTouched(file: string): Promise<boolean> {
  const before = touchedAt(file);
  for (let waited = 0; waited < STALE_MS; waited += TOUCH_MS / 4) {
    await new Promise((done) => setTimeout(done, TOUCH_MS / 4));
    if (touchedAt(file) !== before) return true;
  }
  return false;
}

/** Takes the file `lock` of a folder for others that do not share our sockets. `lost` is told when somebody took it. */
async function takeFile(folder: string, own: Holder, lost: () => void): Promise<() => void> {
  const file = join(folder, 'lock');
  const other = holderIn(file);
  if (other && other.realm !== own.realm && (await isTouched(file)))
    throw inUse(folder, 'another Taxiarch, on another computer or in another container');
  writeFileSync(file, JSON.stringify(own));
  const touching = setInterval(() => {
    const holder = holderIn(file);
    if (holder && holder.id !== own.id) {
      clearInterval(touching);
      return lost();
    }
    try {
      const now = new Date();
      utimesSync(file, now, now);
    } catch {
      // Gone or not to be reached for the moment: the socket holds on this computer.
    }
  }, TOUCH_MS);
  touching.unref();
  return () => {
    clearInterval(touching);
    if (holderIn(file)?.id === own.id) unlinkSync(file);
  };
}

/**
 * Takes the lock of a folder that exists; rejects with {@link FolderInUse} if another process has it.
 * `lost` is told when it is ours no more: this process slept for so long that another took the folder.
 */
export async function lockFolder(
  folder: string,
  lost: () => void = () => undefined,
  own: Holder = { id: randomUUID(), realm: realm() },
): Promise<{ release(): Promise<void> }> {
  const name = `${lockName(folder)}${own.realm === realm() ? '' : own.realm}`;
  let server: Server;
  try {
    server = await listenOn(name);
  } catch {
    if (process.platform !== 'darwin' || (await answers(name))) throw inUse(folder);
    unlinkSync(name);
    server = await listenOn(name);
  }
  const close = () => new Promise<void>((resolve) => server.close(() => resolve()));
  try {
    const releaseFile = await takeFile(folder, own, lost);
    return {
      release: () => {
        releaseFile();
        return close();
      },
    };
  } catch (error) {
    await close();
    throw error;
  }
}
