import fc from 'fast-check';
import { encodeFile, encodeJson, groupOf, instanceName, PackageReader, readMessage, Station, writeMessage } from '.';
import type { Commit, Message } from '.';

const ONE = '11111111-1111-4111-8111-111111111111';
const TWO = '22222222-2222-4222-8222-222222222222';
const FILE = '33333333-3333-4333-8333-333333333333';
const commit = (fileId = FILE, more: Partial<Commit> = {}): Commit => ({
  fileId,
  stationId: TWO,
  forIds: [],
  comment: '',
  fileName: '',
  size: 0,
  ...more,
});

/** Bytes in portions at the given places. */
function portions(bytes: Uint8Array, cuts: readonly number[]): Uint8Array[] {
  const at = [0, ...cuts.map((cut) => cut % (bytes.length + 1)).sort((a, b) => a - b), bytes.length];
  return at.slice(1).map((end, i) => bytes.subarray(at[i], end));
}

test('a package is the header of the standard and its payload', () => {
  expect(Buffer.from(encodeJson('{}')).toString('hex')).toBe(
    '000be1ba' + '00000001' + '00000000' + '00000001' + '00000000' + '0000000000000002' + '7b7d',
  );
});

test('messages and files in any portions come whole and in order', () => {
  const part = fc.oneof(
    fc.string().map((text) => ({ kind: 'json' as const, text })),
    fc
      .tuple(fc.uint8Array({ maxLength: 200 }), fc.integer({ min: 1, max: 60 }))
      .map(([bytes, piece]) => ({ kind: 'file' as const, bytes, piece })),
  );
  fc.assert(
    fc.property(fc.array(part, { maxLength: 5 }), fc.array(fc.nat(), { maxLength: 12 }), (parts, cuts) => {
      const wire = Buffer.concat(
        parts.flatMap((one) => (one.kind === 'json' ? [encodeJson(one.text)] : encodeFile(one.bytes, one.piece))),
      );
      const reader = new PackageReader();
      const got = portions(new Uint8Array(wire), cuts).flatMap((portion) => {
        const read = reader.push(portion);
        if (!read.ok) throw new Error(read.why);
        return read.value;
      });
      expect(got).toEqual(
        parts.map((one) =>
          one.kind === 'json' ? { kind: 'json', text: one.text } : { kind: 'file', bytes: new Uint8Array(one.bytes) },
        ),
      );
    }),
  );
});

test('any bytes at all are read or refused, and a refusal stays', () => {
  fc.assert(
    fc.property(fc.uint8Array({ minLength: 28, maxLength: 200 }), (bytes) => {
      const reader = new PackageReader();
      const first = reader.push(bytes);
      expect(first.ok).toBe(false);
      expect(reader.push(encodeJson('{}')).ok).toBe(false);
    }),
  );
});

test('what says that it is too large is refused by its header', () => {
  const huge = encodeFile(new Uint8Array(10))[0]!.slice(0, 28);
  new DataView(huge.buffer).setBigUint64(20, 2n ** 40n);
  expect(new PackageReader().push(huge)).toMatchObject({ ok: false, reason: 'out-of-range' });
  const long = encodeJson('x').slice(0, 28);
  new DataView(long.buffer).setUint32(24, 2 * 1024 * 1024);
  expect(new PackageReader().push(long)).toMatchObject({ ok: false, why: expect.stringContaining('1 MiB') });
  const reader = new PackageReader(100);
  const pieces = encodeFile(new Uint8Array(150), 60);
  expect(reader.push(pieces[0]!).ok).toBe(true);
  expect(reader.push(pieces[1]!)).toMatchObject({ ok: false, reason: 'out-of-range' });
});

test('a message between the pieces of a file is refused', () => {
  const reader = new PackageReader();
  reader.push(encodeFile(new Uint8Array(10), 5)[0]!);
  expect(reader.push(encodeJson('{}'))).toMatchObject({ ok: false, why: expect.stringContaining('between') });
});

// As they are shown: single spaces, none at the ends.
const name = fc.stringMatching(/^[\w ’äß]{1,40}$/).map((text) => text.replace(/ +/g, ' ').trim());
const id = fc.constantFrom(ONE, TWO, FILE);
const commits = fc.record({
  fileId: id,
  stationId: id,
  forIds: fc.array(id, { maxLength: 3 }),
  comment: name,
  fileName: name,
  size: fc.nat(),
});
const answered = { ok: fc.boolean(), message: name };
const joining = { stationId: id, name, provider: name, commits: fc.array(commits, { maxLength: 3 }) };
const messages: fc.Arbitrary<Message> = fc.oneof(
  fc.record({ type: fc.constant('join' as const), ...joining }),
  fc.record({ type: fc.constant('joinRet' as const), ...joining, ...answered }),
  fc.record({ type: fc.constant('leave' as const), stationId: id }),
  commits.map((one) => ({ type: 'commit' as const, ...one })),
  fc.record({ type: fc.constantFrom('leaveRet', 'commitRet', 'requestRet', 'newHostRet'), ...answered }),
  fc.record({
    type: fc.constant('request' as const),
    fileId: fc.oneof(id, fc.constant('')),
    fromIds: fc.array(id, { maxLength: 3 }),
  }),
  fc.record({ type: fc.constant('newHost' as const), group: name, url: name }),
);

test('every message is read as it was written', () => {
  fc.assert(
    fc.property(messages, fc.constantFrom('', '\ufeff'), fc.constantFrom('', '\0', '\0\0'), (message, mark, end) =>
      expect(readMessage(mark + writeMessage(message) + end)).toEqual({ ok: true, value: message }),
    ),
  );
});

test('any text is read or refused with a sentence', () => {
  fc.assert(
    fc.property(fc.oneof(fc.string(), fc.json()), (text) => {
      const read = readMessage(text);
      expect(read.ok || read.why.endsWith('.')).toBe(true);
    }),
  );
});

test('names are cut, and freed of what turns writing around; a file of no name is none', () => {
  const read = readMessage(
    JSON.stringify({
      Type: 'MVR_JOIN',
      StationUUID: `{${ONE.toUpperCase()}}`,
      StationName: `a\u202E\n${'b'.repeat(500)}`,
    }),
  );
  expect(read).toMatchObject({ ok: true, value: { stationId: ONE } });
  const { name: said } = (read as { value: { name: string } }).value;
  expect(said.startsWith('a b')).toBe(true);
  expect(said.length).toBe(120);
  expect(readMessage('{"Type":"MVR_COMMIT","FileUUID":"../../etc"}').ok).toBe(false);
});

const here = { address: '127.0.0.9', port: 4000 };
const me = { stationId: ONE, name: 'Plan', provider: 'Taxiarch' };
const other = { stationId: TWO, name: 'Bridge desk', provider: 'Desk' };

test('who joins is told what is offered, and its files are known; each is news once', () => {
  const station = new Station(me);
  station.offer({ fileId: FILE, forIds: [], comment: 'first', fileName: 'a.mvr' }, new Uint8Array(7), 5);
  const said = station.hear({ type: 'join', ...other, commits: [commit(ONE)] }, here, 10);
  expect(said.message).toMatchObject({
    type: 'joinRet',
    ok: true,
    stationId: ONE,
    commits: [{ fileId: FILE, size: 7 }],
  });
  expect(said.fresh).toHaveLength(1);
  expect(station.list()).toMatchObject([
    { stationId: TWO, port: 4000, joined: true, commits: [{ fileId: ONE, at: 10 }] },
  ]);
  const again = station.hear({ type: 'commit', ...commit(ONE, { comment: 'said anew' }) }, here, 20);
  expect(again.fresh).toEqual([]);
  expect(station.list()[0]!.commits).toMatchObject([{ comment: 'said anew', at: 10 }]);
});

test('a commit of a stranger, or for somebody else, is no offer', () => {
  const station = new Station(me);
  expect(station.hear({ type: 'commit', ...commit() }, here, 1).message).toMatchObject({ ok: false });
  station.hear({ type: 'join', ...other, commits: [] }, here, 1);
  expect(station.hear({ type: 'commit', ...commit(FILE, { forIds: [TWO] }) }, here, 2).fresh).toEqual([]);
  expect(station.hear({ type: 'commit', ...commit(FILE, { forIds: [ONE] }) }, here, 2).fresh).toHaveLength(1);
});

test('a request gets the file by its id or the newest, and a sentence where there is none', () => {
  const station = new Station(me);
  const ask = (fileId: string) => station.hear({ type: 'request', fileId, fromIds: [] }, here, 1);
  expect(ask('').message).toMatchObject({ type: 'requestRet', ok: false });
  for (const length of [1, 2])
    station.offer(
      { fileId: length === 1 ? FILE : TWO, forIds: [], comment: '', fileName: '' },
      new Uint8Array(length),
      1,
    );
  expect(ask('').file).toHaveLength(2);
  expect(ask(FILE).file).toHaveLength(1);
  expect(ask(ONE).message).toMatchObject({ ok: false });
});

test('whoever asks all to go elsewhere is told that a person decides, and is forgotten when it leaves', () => {
  const station = new Station(me);
  station.hear({ type: 'join', ...other, commits: [] }, here, 1);
  expect(station.hear({ type: 'newHost', group: '', url: 'ws://x' }, here, 1).message).toMatchObject({ ok: false });
  expect(station.asked).toMatchObject({ url: 'ws://x', from: '127.0.0.9' });
  station.hear({ type: 'leave', stationId: TWO }, here, 1);
  expect(station.list()).toEqual([]);
});

test('one that listens elsewhere was begun anew: it has to be joined again, and what it offered stays', () => {
  const station = new Station(me);
  station.hear({ type: 'join', ...other, commits: [commit()] }, here, 1);
  station.found({ ...other, ...here });
  expect(station.find(TWO)!.joined).toBe(true);
  station.found({ ...other, ...here, port: 4001 });
  expect(station.find(TWO)).toMatchObject({ joined: false, commits: [{ fileId: FILE }] });
});

test('a flood of stations and files is bounded', () => {
  const station = new Station(me);
  const uuid = (n: number) => `${n.toString(16).padStart(8, '0')}-0000-4000-8000-000000000000`;
  for (let i = 0; i < 500; i += 1) station.hear({ type: 'join', ...other, stationId: uuid(i), commits: [] }, here, 1);
  expect(station.list().length).toBe(100);
  for (let i = 0; i < 500; i += 1)
    station.hear({ type: 'commit', ...commit(uuid(i), { stationId: uuid(0) }) }, here, i);
  expect(station.find(uuid(0))!.commits.length).toBe(100);
  expect(station.find(uuid(0))!.commits.at(-1)!.fileId).toBe(uuid(499));
});

test('names on mDNS hold station and group, whatever stands in them', () => {
  expect(groupOf(instanceName('Bridge. desk', 'Ferry'))).toBe('Ferry');
  expect(groupOf('_mvrxchange._tcp.local')).toBe('');
  expect(groupOf('_http._tcp.local')).toBeUndefined();
  fc.assert(fc.property(fc.string(), fc.string(), (a, b) => expect(groupOf(instanceName(a, b))).toBeDefined()));
});
