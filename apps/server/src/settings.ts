/** Settings of this computer and its sACN identity, kept as one small file in the data folder. */
import { randomUUID } from 'node:crypto';
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Settings } from '@taxiarch/core/contract';
import { parseCid } from '@taxiarch/core/sacn';

const DEFAULTS: Settings = {
  interface: 'plan',
  artnetInterface: 'same',
  outputRate: 44,
  outputPriority: 150,
  artnetBroadcast: false,
  poll: true,
  artnetTimeout: 10_000,
};

interface Kept {
  readonly cid: string;
  readonly settings: Settings;
  /** Routes that were running when this was last written */
  readonly running: readonly string[];
}

export class SettingsFile {
  private readonly path: string;
  private kept: Kept;

  /** `first` are settings for a folder that has none yet. */
  constructor(folder: string, first: Partial<Settings>) {
    this.path = join(folder, 'settings.json');
    const found = existsSync(this.path) ? (JSON.parse(readFileSync(this.path, 'utf8')) as Partial<Kept>) : undefined;
    this.kept = {
      cid: found?.cid ?? randomUUID(),
      settings: { ...DEFAULTS, ...(found ? found.settings : first) },
      running: found?.running ?? [],
    };
    if (!found) this.write();
  }

  private write(): void {
    writeFileSync(`${this.path}.new`, `${JSON.stringify(this.kept, null, 2)}\n`);
    renameSync(`${this.path}.new`, this.path);
  }

  /** This Taxiarch's sACN component id, the same at every start. */
  get cid(): Uint8Array {
    return parseCid(this.kept.cid);
  }

  get running(): readonly string[] {
    return this.kept.running;
  }

  keepRunning(running: readonly string[]): void {
    this.kept = { ...this.kept, running };
    this.write();
  }

  read(): Settings {
    return this.kept.settings;
  }

  change(changes: Partial<Settings>): Settings {
    this.kept = { ...this.kept, settings: { ...this.kept.settings, ...changes } };
    this.write();
    return this.kept.settings;
  }
}
