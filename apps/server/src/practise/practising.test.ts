/** Practising against a bench that notes what is done to it: planted, found, marked, and never on a real network. */
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { LiveReport } from '@taxiarch/core/whole/contract';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { nightOf } from '@taxiarch/core/truth/practise';
import type { PushResult } from '@taxiarch/core/network/node';
import { emptyShow } from '@taxiarch/core/show/records';
import { Bench } from './bench';
import { Practising } from './practising';

const folder = mkdtempSync(join(tmpdir(), 'taxiarch-marks-'));
const done: { id: string; reset?: boolean }[] = [];
/** A stand-in that refuses whatever is done to it */
let refuses = '';
let server: Server;
let bench: Bench;

beforeAll(async () => {
  server = createServer((request, response) => {
    let body = '';
    request.on('data', (part) => (body += String(part)));
    request.on('end', () => {
      const hand = JSON.parse(body) as (typeof done)[number];
      done.push(hand);
      if (hand.id === refuses) {
        response.statusCode = 400;
        response.end('{"why":"It will not."}');
      } else response.end('[]');
    });
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  bench = new Bench(`http://127.0.0.1:${(server.address() as AddressInfo).port}`);
});
afterAll(() => {
  server.close();
  rmSync(folder, { recursive: true, force: true });
});
beforeEach(() => done.splice(0));

let address = '127.0.0.1';
const host = { now: () => ({ interface: { address }, artnetInterface: { address } }) as unknown as LiveReport };
const ferry = nightFerry();
const show = (records = ferry) => ({ plan: () => ({ ...records, reach: [] }) });
const said: string[] = [];
const practising = (over: { bench?: Bench; records?: typeof ferry } = {}) =>
  new Practising(folder, over.bench ?? bench, host, show(over.records), { say: (_, sentence) => said.push(sentence) });
const MARA = { author: 'Mara', count: 2, hard: 'easy' } as const;
const [first, second] = nightOf(5, 2, 'easy');

test('a night is planted after everything was made as shipped; it runs until all is named; marks are kept', async () => {
  const here = practising();
  const begun = await here.begin({ ...MARA, number: 5 });
  expect(done).toEqual([{ id: 'all', reset: true }, ...first!.hands, ...second!.hands]);
  expect(begun.running).toMatchObject({ number: 5, by: 'Mara', count: 2, found: [], wrong: 0 });
  // What is wrong is told to nobody while it is looked for.
  expect(JSON.stringify(begun.running)).not.toContain(first!.says);
  await expect(here.begin(MARA)).rejects.toThrow('Mara practises already. End that first.');

  expect((await here.name(first!.at, 'lamp-dead')).right).toBe(false);
  expect(here.hint().running!.hints).toHaveLength(1);
  expect((await here.name(first!.at, first!.causes[0]!)).right).toBe(true);
  done.splice(0);
  const last = await here.name(second!.at, second!.causes[0]!);
  expect(last).toMatchObject({ right: true, practice: { running: null } });
  expect(last.practice.last!.mark).toMatchObject({ by: 'Mara', found: 2, hints: 1, wrong: 1, points: 85 });
  expect(done).toEqual([{ id: 'all', reset: true }]);
  expect(practising().read().marks).toMatchObject([{ by: 'Mara', points: 85 }]);
  expect(() => here.hint()).toThrow('Nobody practises now.');
});

test('a push that was read back finds what was turned at that node; one that was refused does not', async () => {
  const here = practising();
  const night = Array.from({ length: 500 }, (_, i) => i + 1).find((number) =>
    nightOf(number, 1, 'easy')[0]!.hands.some((hand) => 'turn' in hand),
  )!;
  const [fault] = nightOf(night, 1, 'easy');
  await here.begin({ ...MARA, count: 1, number: night });
  const machineId = `machine-${fault!.hands[0]!.id}`;
  const pushed = (state: string): PushResult =>
    ({ machineId, trouble: '', fields: [{ what: 'Port', state }], byHand: [] }) as unknown as PushResult;
  for (const state of ['refused', 'no answer', 'not supported']) await here.pushed([pushed(state)]);
  await here.pushed([{ ...pushed('done'), fields: [] }]);
  expect(here.read().running).not.toBeNull();
  await here.pushed([pushed('done')]);
  expect(here.read().last!.faults).toMatchObject([{ how: 'mended' }]);
});

test('it is refused without stand-ins, on a real network, and in another show', async () => {
  await expect(practising({ bench: new Bench(undefined) }).begin(MARA)).rejects.toThrow(/There are no stand-ins/);
  await expect(practising({ records: emptyShow() }).begin(MARA)).rejects.toThrow(/belong to the show Night Ferry/);
  address = '192.168.7.2';
  await expect(practising().begin(MARA)).rejects.toThrow(/Taxiarch is on a real network/);
  expect(practising().read().cannot).toMatch(/real network/);
  address = '127.0.0.1';
  expect(done).toEqual([]);
});

test('a night that the stand-ins refuse halfway is none: all is made as shipped again', async () => {
  const here = practising();
  refuses = second!.hands[0]!.id;
  await expect(here.begin({ ...MARA, number: 5 })).rejects.toThrow('It will not.');
  refuses = '';
  expect(here.read().running).toBeNull();
  expect(done.at(-1)).toEqual({ id: 'all', reset: true });
});

test('while it runs the network stays as it is', async () => {
  const here = practising();
  here.refuse({ interface: '192.168.7.2' });
  await here.begin(MARA);
  for (const change of [{ interface: '192.168.7.2' }, { artnetInterface: '10.0.0.1' }, { sendIpv6: true }])
    expect(() => here.refuse(change)).toThrow(/the network stays as it is/);
  here.refuse({ outputRate: 30 });
  expect(() => here.refuseReset({ id: 'all', reset: true })).toThrow(/End that first/);
  here.refuseReset({ id: 'boiler', plugged: true });
  await here.end();
  here.refuse({ interface: '192.168.7.2' });
});

test('a damaged file of marks is set aside, and the last good one stands in', async () => {
  const here = practising();
  await here.begin(MARA);
  await here.end();
  await here.begin(MARA);
  await here.end();
  const path = join(folder, 'marks.json');
  const count = here.read().marks.length;
  writeFileSync(path, '{');
  expect(practising().read().marks).toHaveLength(count - 1);
  expect(said).toEqual([expect.stringMatching(/^The marks of those who practised were damaged/)]);
  expect(JSON.parse(readFileSync(path, 'utf8'))).toHaveLength(count - 1);
});
