/** What machines are. */
export const MACHINE_KINDS = [
  'console',
  'backup console',
  'media server',
  'visualiser',
  'computer',
  'node',
  'pixel controller',
  'DMX desk',
  'USB adapter',
  'switch',
  'wall panel',
] as const;
export type MachineKind = (typeof MACHINE_KINDS)[number];

/** What is plugged in by a DMX or USB cable and has no address. */
export const isOffNetwork = (kind: MachineKind): boolean => kind === 'DMX desk' || kind === 'USB adapter';

/** Kinds of machine that send. */
export const SENDING_KINDS: readonly MachineKind[] = [
  'console',
  'backup console',
  'media server',
  'wall panel',
  'computer',
  'DMX desk',
  'visualiser',
];
