/** Files in: begin reading, ask how far it is, write the chosen rows, or cancel. */
import type { TableChoiceBody } from '@taxiarch/core/whole/contract';
import type { Imports } from '../imports/imports';
import type { Choices } from '../imports/look';
import type { ShowStore } from '../store/store';
import type { Handlers } from './api';
import { ProblemError } from '../problemError';

const GONE = 'This file is not here any more. Bring it in again.';

/** How a table is to be read; a column without a meaning is left out. */
function tableSaid({ sheet, also, columns, ...bases }: TableChoiceBody): Partial<Choices> {
  return {
    ...(also && { also }),
    ...(sheet !== undefined && { sheet }),
    table: { ...bases, ...(columns && { columns: columns.map((column) => (column === '' ? null : column)) }) },
  };
}

type ImportHandlers = Pick<Handlers, 'beginImport' | 'readImport' | 'chooseImport' | 'cancelImport' | 'writeImport'>;

export const importHandlers = (imports: Imports, store: ShowStore): ImportHandlers => {
  const report = (id: string) => {
    const found = imports.report(id, store.records());
    if (!found) throw new ProblemError('not-here', GONE);
    return found;
  };
  return {
    beginImport: ({ params: { kind }, query: { name = `a ${kind} file` }, bytes }) => {
      if (bytes.length === 0) throw new ProblemError('not-understood', 'The file is empty.');
      const started = imports.start(kind, name.slice(0, 120), bytes);
      if (!started.ok) throw new ProblemError('busy', started.why);
      return report(started.value);
    },

    readImport: ({ params: { id } }) => report(id),

    chooseImport: ({ params: { id }, body: { types = [], table } }) => {
      const said = {
        types: Object.fromEntries(
          types.map(({ key, typeId, modes }) => [
            key,
            { typeId, modes: Object.fromEntries(modes.map((one) => [one.said, one.mode])) },
          ]),
        ),
        ...(table && tableSaid(table)),
      };
      if (!imports.choose(id, said, store.records())) throw new ProblemError('not-here', GONE);
      return report(id);
    },

    writeImport: async ({ params: { id }, body: { author, keys, fields = [] } }) => {
      const plan = imports.plan(id, keys, fields, store.records());
      if (!plan.ok) throw new ProblemError(plan.reason === 'stale' ? 'stale-edit' : 'not-possible', plan.why);
      const { sentence, changes } = plan.value;
      const { seq } = await store.propose({ author, sentence, changes });
      imports.cancel(id);
      return { seq, sentence, changes: changes.length };
    },

    cancelImport: ({ params: { id } }) => {
      if (!imports.cancel(id)) throw new ProblemError('not-here', GONE);
    },
  };
};
