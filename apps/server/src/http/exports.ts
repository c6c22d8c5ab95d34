/** The show in open formats, as files to be saved. */
import Router from '@koa/router';
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
import type { ShowRecords } from '@taxiarch/core/show';
import type { KeptFiles } from '../store/files';
import type { ShowStore } from '../store/store';
import { ProblemError } from './problem';

const TABLES: Readonly<Record<string, (records: ShowRecords) => string>> = {
  lamps: writeLampTable,
  channels: (records) => writeChannelTable(rigOf(records).patch),
  pixels: writePixelTable,
  addresses: writeAddressTable,
  ports: writePortTable,
  outputs: writeOutputTable,
};

export function exportRoutes(store: ShowStore, files: KeptFiles): Router {
  const router = new Router({ prefix: '/api/export' });
  const showName = () => store.records().show[0]?.name ?? 'Show';

  router.get('/gdtf/:type', (ctx) => {
    const type = [...store.records().type, ...LIBRARY].find(({ id }) => id === ctx.params['type']);
    if (!type) throw new ProblemError(404, 'Not here', 'This type is neither in the show nor in the library.');
    ctx.attachment(gdtfName(type));
    ctx.type = 'application/zip';
    ctx.body = Buffer.from(writeGdtf(type, files.get(type.file)));
  });

  router.get('/mvr', (ctx) => {
    const records = store.records();
    ctx.attachment(`${showName()}.mvr`);
    ctx.type = 'application/zip';
    ctx.body = Buffer.from(writeMvr(records, (type) => files.get(type.file), files.get(records.show[0]?.file ?? null)));
  });

  router.get('/csv/:table', (ctx) => {
    const write = TABLES[ctx.params['table']!];
    if (!write)
      throw new ProblemError(
        404,
        'Not here',
        `There is no table of ${ctx.params['table']}. Choose ${Object.keys(TABLES).join(', ')}.`,
      );
    ctx.attachment(`${showName()} ${ctx.params['table']}.csv`);
    ctx.type = 'text/csv; charset=utf-8';
    ctx.body = write(store.records());
  });

  router.get('/show', (ctx) => {
    const records = store.records();
    const kept = filesOf(records).flatMap((name) => {
      const bytes = files.get(name);
      return bytes ? [[name, Buffer.from(bytes).toString('base64')] as const] : [];
    });
    ctx.attachment(`${showName()}.taxiarch.json`);
    ctx.type = 'application/json';
    ctx.body = writeShowFile(records, Object.fromEntries(kept));
  });

  return router;
}
