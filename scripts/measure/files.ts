/** Files as the trade writes them, at size: how long each takes until it stands beside the show, and what live values notice. */
import type { ImportKind, ImportReply, LiveReport } from '@taxiarch/core/whole/contract';
import { lampTable, writeTable } from '@taxiarch/core/files/format';
import { writeGdtf, writeMvr } from '@taxiarch/core/files/format/archive';
import { writeSheet } from '@taxiarch/core/files/format/sheets';
import { PLAIN_TYPE, type FixtureType } from '@taxiarch/core/show/records';
import { ratio, wait, type Extent, type Figure } from './figure';
import { base, get, withServer } from './server';
import { largeRig } from './large';

const LOOK_MS = 20;
/** Live values are asked for as often meanwhile */
const LIVE_MS = 50;

/** A type of many modes of many channels, each with named values. */
const largeType = (modes: number, channels: number): FixtureType => ({
  ...PLAIN_TYPE,
  id: 'type-large',
  rev: 0,
  maker: 'Quillon',
  name: 'Great Rose',
  kind: 'panel',
  modes: Array.from({ length: modes }, (_, mode) => ({
    name: `Mode ${mode + 1}`,
    channels: Array.from({ length: channels }, (_, i) => ({
      attribute: i % 4 === 3 ? 'Control1' : `ColorAdd_${'RGB'[i % 4]}`,
      offsets: [i + 1],
      default: 0,
      highlight: 255,
      cell: Math.floor(i / 4) + 1,
      ranges: [
        { name: 'low', from: 0, to: 99 },
        { name: 'high', from: 100, to: 255 },
      ],
    })),
  })),
});

interface Read {
  readonly seconds: number;
  /** Longest that live values were waited for, ms */
  readonly slowest: number;
}

/** Brings a file in, and waits until it stands beside the show. */
async function bringIn(kind: ImportKind, bytes: Uint8Array): Promise<Read> {
  let slowest = 0;
  let reading = true;
  const live = (async () => {
    while (reading) {
      const asked = performance.now();
      await get<LiveReport>('/api/live');
      slowest = Math.max(slowest, performance.now() - asked);
      await wait(LIVE_MS);
    }
  })();
  const begun = performance.now();
  const answer = await fetch(`${base}/api/import/${kind}?name=large`, { method: 'POST', body: Buffer.from(bytes) });
  let reply = (await answer.json()) as ImportReply;
  while (reply.state === 'working') {
    await wait(LOOK_MS);
    reply = await get<ImportReply>(`/api/import/${reply.id}`);
  }
  const seconds = (performance.now() - begun) / 1000;
  reading = false;
  await live;
  if (reply.state !== 'ready') throw new Error(reply.why);
  await fetch(`${base}/api/import/${reply.id}`, { method: 'DELETE' });
  return { seconds, slowest };
}

export async function measure(extent: Extent): Promise<Figure[]> {
  const lamps = extent.of(5000, 200);
  const rig = largeRig(lamps);
  const { heads, rows } = lampTable(rig);
  const files: readonly (readonly [what: string, most: number, kind: ImportKind, bytes: Uint8Array])[] = [
    [`an MVR of ${lamps} lamps`, 2, 'mvr', writeMvr(rig, () => undefined)],
    ['a GDTF of 60 modes of 400 channels', 2, 'gdtf', writeGdtf(largeType(extent.of(60, 3), 400))],
    [`an XLSX of ${lamps} rows`, 3, 'table', writeSheet(heads, rows, 'Lamps', 'xlsx')],
    [`an ODS of ${lamps} rows`, 3, 'table', writeSheet(heads, rows, 'Lamps', 'ods')],
    [`a table of ${lamps} rows`, 2, 'table', new TextEncoder().encode(writeTable({ heads, rows }))],
  ];
  return withServer([], async () => {
    const figures: Figure[] = [];
    let slowest = 0;
    for (const [what, most, kind, bytes] of files) {
      const read = await bringIn(kind, bytes);
      slowest = Math.max(slowest, read.slowest);
      figures.push({
        figure: `${what}, until it stands beside the show`,
        asked: `at most ${most} s`,
        seen: `${read.seconds.toFixed(1)} s, ${ratio(read.seconds, most)} of that`,
        met: read.seconds <= most,
      });
    }
    figures.push({
      figure: 'live values asked for meanwhile, the slowest',
      asked: 'at most 250 ms',
      seen: `${Math.round(slowest)} ms`,
      met: slowest <= 250,
    });
    return figures;
  });
}
