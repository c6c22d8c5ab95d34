/** The fixture types and the models of machines that ship with Taxiarch. Makers and products are made up. */
import type { FixtureType } from '../../show/records';
import { LIGHTS } from './lights';
import { MOVERS } from './movers';

export const LIBRARY: readonly FixtureType[] = [...LIGHTS, ...MOVERS];
