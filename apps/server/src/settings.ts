/** Settings of this computer and its sACN identity, kept as one small file in the data folder, and beside it the one before. */
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { array, object, string } from 'yup';
import { settings as settingsShape, type Settings } from '@taxiarch/core/whole/contract';
import { initialOf } from '@taxiarch/core/base/field';
import { checkWith } from '@taxiarch/core/show/records';
import { parseCid } from '@taxiarch/core/protocol/sacn';
import type { Notices } from './bridge/notices';
import { KeptFile } from './store/keptFile';

const DEFAULTS: Settings = initialOf(settingsShape.fields);

interface Kept {
  readonly cid: string;
  readonly settings: Settings;
  /** Routes that were running when this was last written */
  readonly running: readonly string[];
  /** DMX adapters that took in what came by their plugs */
  readonly inputs: readonly string[];
}

const keptShape = object({
  cid: string()
    .strict()
    .matches(/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/)
    .required(),
  settings: settingsShape.rule,
  running: array().strict().of(string().strict().required()).required(),
  inputs: array().strict().of(string().strict().required()).required(),
});

/** What a file holds, with what it lacks as it is at first; undefined if it is damaged. */
function checked(found: unknown): Kept | undefined {
  const given = found as Partial<Kept>;
  const kept = { running: [], inputs: [], ...given, settings: { ...DEFAULTS, ...given.settings } };
  return checkWith<Kept>(keptShape, kept).ok ? (kept as Kept) : undefined;
}

export class SettingsFile {
  private readonly file: KeptFile<Kept>;

  /** `first` are settings for a folder that has none yet. A damaged file is set aside, and the last good one stands in. */
  constructor(folder: string, first: Partial<Settings>, notices: Notices) {
    this.file = new KeptFile(join(folder, 'settings.json'), checked, () => ({
      cid: randomUUID(),
      settings: { ...DEFAULTS, ...first },
      running: [],
      inputs: [],
    }));
    const { damaged } = this.file;
    if (!damaged) return;
    notices.say(
      'settings',
      damaged.before
        ? 'The settings of this computer were damaged; those before their last change are in use.'
        : 'The settings of this computer were damaged, and none from before were found; they are as at first.',
      `Look through This computer. The damaged file was kept as ${damaged.aside}.`,
    );
  }

  /** This Taxiarch's sACN component id, the same at every start. */
  get cid(): Uint8Array {
    return parseCid(this.file.read().cid);
  }

  get running(): readonly string[] {
    return this.file.read().running;
  }

  keepRunning(running: readonly string[]): void {
    if (String(running) === String(this.running)) return;
    this.file.keep({ ...this.file.read(), running });
  }

  get inputs(): readonly string[] {
    return this.file.read().inputs;
  }

  keepInputs(inputs: readonly string[]): void {
    if (String(inputs) === String(this.inputs)) return;
    this.file.keep({ ...this.file.read(), inputs });
  }

  read(): Settings {
    return this.file.read().settings;
  }

  change(changes: Partial<Settings>): Settings {
    const kept = this.file.read();
    this.file.keep({ ...kept, settings: { ...kept.settings, ...changes } });
    return this.read();
  }
}
