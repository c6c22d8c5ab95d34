/** Why a slot has the level that it has. */

export * from './trace';
