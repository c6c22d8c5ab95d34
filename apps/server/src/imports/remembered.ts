/** What was decided of a file, and how its next version is known again. */
import { createHash } from 'node:crypto';
import { fieldText, fitted, type ImportRow, type TypeChoices, typeName } from '@taxiarch/core/files/arrival';
import type { ImportKind } from '@taxiarch/core/whole/contract';
import { headsKey } from '@taxiarch/core/files/format';
import type { Arrival, ShowRecords } from '@taxiarch/core/show/records';

/** The name of a file without what tells its versions apart: `Rig v3 (2).mvr` is `Rig` */
export const plainName = (name: string): string =>
  fitted(
    name.replace(/\.[a-z0-9]+$/i, '').replace(/[\s._-]*(\(\d+\)|(v|ver|version|rev|r)?[\s._-]*\d[\d.\s_-]*)$/i, ''),
    200,
  ) || 'A file';

/** What was decided on, in words; as it was then, the decision holds. */
export const hashOfText = (text: string): string => createHash('sha256').update(text).digest('hex').slice(0, 16);

export const hashOf = (row: Pick<ImportRow, 'fields' | 'state'>): string =>
  hashOfText(`${row.state} ${row.fields.map(fieldText).join('; ')}`);

/** A row by what stays the same from one version of its file to the next. */
export const lastingKey = (row: ImportRow): string => {
  if (row.kind === 'type') return `type ${typeName(row.type)}`;
  if (row.kind === 'run') return row.key;
  const { incoming, before } = row;
  return incoming?.uuid ? `lamp ${incoming.uuid}` : `lamp ${incoming ? incoming.number : `gone ${before!.number}`}`;
};

/** The arrival of an earlier version of a file: of its name and kind, or of a table with the same heads. */
export function earlierOf(
  { arrival }: Pick<ShowRecords, 'arrival'>,
  form: ImportKind,
  name: string,
  heads: readonly string[],
): Arrival | undefined {
  const newest = [...arrival].sort((a, b) => (a.at < b.at ? 1 : -1)).filter((one) => one.form === form);
  return (
    newest.find((one) => one.name === plainName(name)) ??
    (heads.length > 0 ? newest.find((one) => headsKey(one.heads) === headsKey(heads)) : undefined)
  );
}

export const typesOf = (earlier: Arrival | undefined): TypeChoices =>
  Object.fromEntries(
    (earlier?.types ?? []).map(({ said, typeId, modes }) => [
      said,
      { typeId, modes: Object.fromEntries(modes.map((one) => [one.said, one.mode])) },
    ]),
  );
