/** Folders whose tests have to fall when the code is wrong, and what was found when it was made wrong. */
import { join } from 'node:path';
import { root } from '../bundle.mjs';

const core = (floor: string, ...folders: string[]) => folders.map((one) => `packages/core/src/${floor}/${one}`);

export const MUTATED: readonly string[] = [
  ...core('base', 'address'),
  ...core('protocol', 'artnet', 'sacn', 'rdm'),
  ...core('signal', 'stream', 'merge', 'route'),
  ...core('show', 'edit'),
  ...core('rig', 'patch', 'pixel'),
  ...core('network', 'ip', 'node', 'port'),
  ...core('truth', 'simulate', 'diagnose', 'whatif'),
  ...core('proving', 'walk'),
  ...core('files', 'arrival'),
  ...['engine', 'store', 'plug', 'walk', 'roll'].map((one) => `apps/server/src/${one}`),
];

export interface MutationFigure {
  readonly folder: string;
  /** Changes at which a test fell */
  readonly caught: number;
  readonly missed: number;
  readonly on: string;
}

export const mutationFile = join(root, 'docs/mutation.json');
