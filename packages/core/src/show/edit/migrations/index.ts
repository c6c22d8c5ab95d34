/** Records of older versions, in numbered steps. */
export { RECORD_VERSION, HistoryUpgrade, upgradeShow, type StoredEdit } from './migrate';
export type { Loose, LooseShow } from './step';
