/** The fixture types that ship with Taxiarch. Makers and products are made up. */
import type { FixtureType } from '../show';
import { LIGHTS } from './lights';
import { MACHINES } from './machines';

export const LIBRARY: readonly FixtureType[] = [...LIGHTS, ...MACHINES];
export * from './boxes';
