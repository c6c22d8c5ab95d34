/** Files that came in from outside and are kept whole, each named by the SHA-256 of its bytes. Never changed, never removed. */
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { writeWhole } from './disk';

export class KeptFiles {
  private readonly folder: string;

  constructor(dataFolder: string) {
    this.folder = join(dataFolder, 'files');
  }

  /** Keeps bytes; they are safe on the disk when this returns their name. */
  keep(bytes: Uint8Array): string {
    const name = createHash('sha256').update(bytes).digest('hex');
    const path = join(this.folder, name);
    if (existsSync(path)) return name;
    mkdirSync(this.folder, { recursive: true });
    writeWhole(path, bytes);
    return name;
  }

  /** The bytes of a kept file; undefined if there is none of that name. */
  get(name: string | null): Uint8Array | undefined {
    if (name === null || !/^[0-9a-f]{64}$/.test(name)) return undefined;
    const path = join(this.folder, name);
    return existsSync(path) ? new Uint8Array(readFileSync(path)) : undefined;
  }
}
