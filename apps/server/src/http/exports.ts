/** The show in open formats, as files to be saved. */
import type { TableForm, TableName } from '@taxiarch/core/whole/contract';
import {
  addressTable,
  channelTable,
  filesOf,
  lampTable,
  outputTable,
  pixelTable,
  portTable,
  writeShowFile,
  writeTable,
  type TableContent,
} from '@taxiarch/core/files/format';
import { writeSheet } from '@taxiarch/core/files/format/sheets';
import { gdtfName, writeGdtf, writeMvr } from '@taxiarch/core/files/format/archive';
import { LIBRARY } from '@taxiarch/core/rig/library';
import { rigOf } from '@taxiarch/core/rig/patch';
import type { ShowRecords } from '@taxiarch/core/show/records';
import type { KeptFiles } from '../store/files';
import type { ShowStore } from '../store/store';
import type { Handlers } from './api';
import { ProblemError } from '../problemError';

const TABLES_OF: Readonly<Record<TableName, (records: ShowRecords) => TableContent>> = {
  lamps: lampTable,
  channels: (records) => channelTable(rigOf(records).patch),
  pixels: pixelTable,
  addresses: addressTable,
  ports: portTable,
  outputs: outputTable,
};

/** RFC 7111 and the registrations of the Office formats */
const MEDIA_TYPES: Readonly<Record<TableForm, string>> = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  ods: 'application/vnd.oasis.opendocument.spreadsheet',
};

type ExportHandlers = Pick<Handlers, 'exportGdtf' | 'exportMvr' | 'exportTable' | 'exportShow'>;

export function exportHandlers(store: ShowStore, files: KeptFiles): ExportHandlers {
  /** As GDTF writes it: without the part of a second, or a zone */
  const now = () => new Date().toISOString().slice(0, 19);
  const showName = () => store.records().show[0]?.name ?? 'Show';

  return {
    exportGdtf: ({ params: { type: id } }) => {
      const type = [...store.records().type, ...LIBRARY].find((one) => one.id === id);
      if (!type) throw new ProblemError('not-here', 'This type is neither in the show nor in the library.');
      if (type.unknown)
        throw new ProblemError('not-here', 'Only the name of this type is known, so there is no file of it.');
      return { name: gdtfName(type), content: writeGdtf(type, files.get(type.file), now()) };
    },

    exportMvr: () => {
      const records = store.records();
      const ground = files.get(records.show[0]?.file ?? null);
      return { name: `${showName()}.mvr`, content: writeMvr(records, (type) => files.get(type.file), ground) };
    },

    exportTable: ({ params: { form, table } }) => {
      const content = TABLES_OF[table](store.records());
      return {
        name: `${showName()} ${table}.${form}`,
        type: MEDIA_TYPES[form],
        content: form === 'csv' ? writeTable(content) : writeSheet(content.heads, content.rows, table, form),
      };
    },

    exportShow: () => {
      const records = store.records();
      const kept = filesOf(records).flatMap((name) => {
        const bytes = files.get(name);
        return bytes ? [[name, Buffer.from(bytes).toString('base64')] as const] : [];
      });
      return { name: `${showName()}.taxiarch.json`, content: writeShowFile(records, Object.fromEntries(kept)) };
    },
  };
}
