/** Records as older versions wrote them, brought to the form of today; edits of the history hold them too. */
import { runsOf } from '../address';
import { PLAIN_MACHINE, PLAIN_PORT, PLAIN_SPEED } from './machines';
import { PLAIN_RANGE, type AnyRecord, type Kind } from './records';
import type { Edit } from './edit';

type Loose = Record<string, unknown>;

/** Machines once had one address, a model in words, and ports that were `out` or `in` and no more. */
function upgradeMachine(old: Loose): Loose {
  if (old['interfaces'] !== undefined) return old;
  const { model = '', address = '', ports = [], controller = null, ...rest } = old;
  return {
    ...PLAIN_MACHINE,
    kind: controller === null ? 'node' : 'pixel controller',
    notes: model,
    controller,
    interfaces: [{ name: '', mac: '', addresses: address === '' ? [] : [{ way: 'fixed', address, prefix: 8 }] }],
    ports: (ports as Loose[]).map(({ direction, ...port }) => ({ ...PLAIN_PORT, use: direction, ...port })),
    ...rest,
  };
}

/** Senders once had a list of universes, all at one priority. */
function upgradeSource(old: Loose): Loose {
  if (old['ranges'] !== undefined) return old;
  const { universes = [], priority = PLAIN_RANGE.priority, ...rest } = old;
  const runs = runsOf([...new Set(universes as number[])].sort((a, b) => a - b));
  return {
    ...rest,
    ranges: runs.map(([from, last]) => ({ ...PLAIN_RANGE, from, count: last - from + 1, priority })),
  };
}

/** Fields that once were not there, with what everybody took for granted. */
const since =
  (fields: Loose) =>
  (old: Loose): Loose =>
    Object.keys(fields).every((key) => key in old) ? old : { ...fields, ...old };

const UPGRADES: Partial<Record<Kind, (old: Loose) => Loose>> = {
  machine: upgradeMachine,
  source: upgradeSource,
  model: since({ speed: PLAIN_SPEED }),
  link: since({ startsFirst: 'sender' }),
};

/** A record of any version as it is written today; what is of today already comes back as it is. */
export const upgradeRecord = (kind: Kind, record: unknown): AnyRecord =>
  (UPGRADES[kind]?.(record as Loose) ?? record) as AnyRecord;

export const upgradeEdit = (edit: Edit): Edit => {
  const upgrade = (kind: Kind, record: AnyRecord | null) => (record === null ? null : upgradeRecord(kind, record));
  return {
    ...edit,
    changes: edit.changes.map((change) => ({
      ...change,
      before: upgrade(change.kind, change.before),
      after: upgrade(change.kind, change.after),
    })),
  };
};
