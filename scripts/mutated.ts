/** Folders whose tests have to fall when the code is wrong. */
const core = (floor: string, ...folders: string[]) => folders.map((one) => `packages/core/src/${floor}/${one}`);

export const HELD: readonly string[] = [
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
