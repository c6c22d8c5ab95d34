/** Walking through lamps and channels: what each is set to and shows, who takes what, and what became of each. */
export * from './order';
export * from './items';
export * from './sharing';
export * from './marks';
export * from './stood';
export * from './words';
export * from './swapped';
export * from './judge';
export * from './next';
