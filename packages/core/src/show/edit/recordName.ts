/** What records are called. */
import { type AnyRecord, DESCRIPTIONS, type Kind, type ShowRecords } from '../records';

/** What a record is called in sentences and rows; marks are named by their lamps in `show`. */
export function recordName(kind: Kind, record: AnyRecord, show?: Pick<ShowRecords, 'lamp' | 'run'>): string {
  const { id, number, name, lampId, result, by } = (record ?? {}) as unknown as Readonly<Record<string, unknown>>;
  if (kind === 'mark') {
    const lamp = show?.lamp.find((one) => one.id === lampId) ?? show?.run.find((one) => one.id === lampId);
    return `mark: ${lamp ? `${lamp.number} ${lamp.name}` : String(lampId)} ${String(result)} by ${String(by)}`;
  }
  if (kind === 'sighting') return `sighting by ${String(by) || 'someone'}`;
  if (kind === 'proof') return `record of proof of ${String((record as { at?: unknown }).at)}`;
  const said = [number, name].filter((part) => part !== undefined && part !== '');
  return `${DESCRIPTIONS[kind].one} ${said.length > 0 ? said.join(' ') : String(id)}`;
}
