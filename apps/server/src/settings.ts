/** Settings of this computer and its sACN identity, kept as one small file in the data folder, and beside it the one before. */
import { randomUUID } from 'node:crypto';
import { copyFileSync, existsSync, readFileSync, renameSync } from 'node:fs';
import { join } from 'node:path';
import { array, object, string } from 'yup';
import { settings as settingsShape, type Settings } from '@taxiarch/core/contract';
import { initialOf } from '@taxiarch/core/field';
import { checkWith } from '@taxiarch/core/records';
import { parseCid } from '@taxiarch/core/sacn';
import type { Notices } from './bridge/notices';
import { writeWhole } from './store/disk';

const DEFAULTS: Settings = initialOf(settingsShape.fields);

interface Kept {
  readonly cid: string;
  readonly settings: Settings;
  /** Routes that were running when this was last written */
  readonly running: readonly string[];
}

const keptShape = object({
  cid: string()
    .strict()
    .matches(/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/)
    .required(),
  settings: settingsShape.rule,
  running: array().strict().of(string().strict().required()).required(),
});

/** What a file holds, with what it lacks as it is at first; undefined if it is damaged. */
function readKept(path: string): Kept | undefined {
  try {
    const found = JSON.parse(readFileSync(path, 'utf8')) as Partial<Kept>;
    const kept = { running: [], ...found, settings: { ...DEFAULTS, ...found.settings } };
    return checkWith<Kept>(keptShape, kept).ok ? (kept as Kept) : undefined;
  } catch {
    return undefined;
  }
}

export class SettingsFile {
  private readonly path: string;
  private kept: Kept;

  /** `first` are settings for a folder that has none yet. A damaged file is set aside, and the last good one stands in. */
  constructor(folder: string, first: Partial<Settings>, notices: Notices) {
    this.path = join(folder, 'settings.json');
    const there = existsSync(this.path);
    const found = there ? readKept(this.path) : undefined;
    if (found) {
      this.kept = found;
      return;
    }
    const before = readKept(this.before);
    this.kept = before ?? { cid: randomUUID(), settings: { ...DEFAULTS, ...first }, running: [] };
    if (there) {
      const aside = `${this.path}.damaged-${Date.now()}`;
      renameSync(this.path, aside);
      notices.say(
        'settings',
        before
          ? 'The settings of this computer were damaged; those before their last change are in use.'
          : 'The settings of this computer were damaged, and none from before were found; they are as at first.',
        `Look through This computer. The damaged file was kept as ${aside}.`,
      );
    }
    this.write();
  }

  private get before(): string {
    return `${this.path}.before`;
  }

  private write(): void {
    if (existsSync(this.path)) copyFileSync(this.path, this.before);
    writeWhole(this.path, `${JSON.stringify(this.kept, null, 2)}\n`);
  }

  /** This Taxiarch's sACN component id, the same at every start. */
  get cid(): Uint8Array {
    return parseCid(this.kept.cid);
  }

  get running(): readonly string[] {
    return this.kept.running;
  }

  keepRunning(running: readonly string[]): void {
    if (String(running) === String(this.kept.running)) return;
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
