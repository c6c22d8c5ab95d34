/** The show in open formats, as files to be saved. */
import type { TableName } from '@taxiarch/core/contract';
import {
  filesOf,
  writeAddressTable,
  writeChannelTable,
  writeLampTable,
  writeOutputTable,
  writePixelTable,
  writePortTable,
  writeShowFile,
} from '@taxiarch/core/format';
import { gdtfName, writeGdtf, writeMvr } from '@taxiarch/core/format/archive';
import { LIBRARY } from '@taxiarch/core/library';
import { rigOf } from '@taxiarch/core/patch';
import type { ShowRecords } from '@taxiarch/core/records';
import type { KeptFiles } from '../store/files';
import type { ShowStore } from '../store/store';
import type { Handlers } from './api';
import { ProblemError } from '../problemError';

const WRITERS: Readonly<Record<TableName, (records: ShowRecords) => string>> = {
  lamps: writeLampTable,
  channels: (records) => writeChannelTable(rigOf(records).patch),
  pixels: writePixelTable,
  addresses: writeAddressTable,
  ports: writePortTable,
  outputs: writeOutputTable,
};

type ExportHandlers = Pick<Handlers, 'exportGdtf' | 'exportMvr' | 'exportTable' | 'exportShow'>;

export function exportHandlers(store: ShowStore, files: KeptFiles): ExportHandlers {
  const showName = () => store.records().show[0]?.name ?? 'Show';

  return {
    exportGdtf: ({ params: { type: id } }) => {
      const type = [...store.records().type, ...LIBRARY].find((one) => one.id === id);
      if (!type) throw new ProblemError('not-here', 'This type is neither in the show nor in the library.');
      return { name: gdtfName(type), content: writeGdtf(type, files.get(type.file)) };
    },

    exportMvr: () => {
      const records = store.records();
      const ground = files.get(records.show[0]?.file ?? null);
      return { name: `${showName()}.mvr`, content: writeMvr(records, (type) => files.get(type.file), ground) };
    },

    exportTable: ({ params: { table } }) => ({
      name: `${showName()} ${table}.csv`,
      content: WRITERS[table](store.records()),
    }),

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
