/** Checks of the network and of the flow. */
export * from './finding';
export * from './checks';
export { allowanceText } from './allowance';
export { linkLoad } from './wireLoad';
export { flowOf } from './flowView';
