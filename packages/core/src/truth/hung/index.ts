/** The rig as it really hangs: lamps, their cables and settings, which know nothing of the plan. */
export * from './lamp';
export * from './rig';
