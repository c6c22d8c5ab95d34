import fc from 'fast-check';
import { CitpPeer, CitpReader, decodeCitp, encodeCitp, type CitpMessage } from '.';

const number = fc.integer({ min: 0, max: 0xffff });
const name = fc.stringMatching(/^[\w’äß]{0,40}$/);
const numbers = fc.array(number, { maxLength: 20 });
const messages: fc.Arbitrary<CitpMessage> = fc.oneof(
  fc.record({ kind: fc.constant('PNam' as const), name }),
  fc.record({ kind: fc.constant('PLoc' as const), port: number, type: name, name, state: name }),
  fc.record({
    kind: fc.constant('Ptch' as const),
    last: fc.boolean(),
    number,
    universe: fc.integer({ min: 0, max: 255 }),
    channel: number,
    channels: number,
    make: name,
    name,
  }),
  fc.record({ kind: fc.constantFrom('UPtc', 'SPtc', 'DeSe', 'SFra'), numbers }),
  fc.record({ kind: fc.constant('Sele' as const), whole: fc.boolean(), numbers }),
  fc.record({
    kind: fc.constant('Fram' as const),
    number,
    filters: fc.nat(255),
    gobos: fc.nat(255),
    frames: fc.array(fc.stringMatching(/^\w{1,9}$/), { minLength: 1, maxLength: 5 }),
  }),
);

test('a patch message is written byte by byte as the protocol says', () => {
  const bytes = encodeCitp({
    kind: 'Ptch',
    last: true,
    number: 101,
    universe: 1,
    channel: 16,
    channels: 20,
    make: 'A',
    name: 'B',
  });
  expect(Buffer.from(bytes).toString('hex')).toBe(
    '434954500100' +
      '0000' +
      '28000000' +
      '0100' +
      '0000' +
      '46505443' +
      '50746368' +
      '03000000' +
      '6500' +
      '01' +
      '00' +
      '1000' +
      '1400' +
      '4100' +
      '4200',
  );
});

test('every message is read as it was written, in whatever portions', () => {
  fc.assert(
    fc.property(fc.array(messages, { maxLength: 6 }), fc.integer({ min: 1, max: 40 }), (all, portion) => {
      const wire = Buffer.concat(all.map(encodeCitp));
      const reader = new CitpReader();
      const got: CitpMessage[] = [];
      for (let at = 0; at < wire.length; at += portion) {
        const read = reader.push(new Uint8Array(wire.subarray(at, at + portion)));
        if (!read.ok) throw new Error(read.why);
        got.push(...read.value);
      }
      expect(got).toEqual(all);
    }),
  );
});

test('any bytes are read, passed over or refused; a cut message never gives a value', () => {
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 100 }), messages, fc.nat(), (bytes, message, cut) => {
      expect(typeof decodeCitp(bytes).ok).toBe('boolean');
      const whole = encodeCitp(message);
      const short = decodeCitp(whole.subarray(0, cut % whole.length));
      expect(short.ok).toBe(false);
    }),
  );
  const long = encodeCitp({ kind: 'PNam', name: 'x' });
  new DataView(long.buffer).setUint32(8, 0x7fffffff, true);
  expect(new CitpReader().push(long)).toMatchObject({ ok: false, reason: 'out-of-range' });
});

test('layers that are not spoken here are passed over', () => {
  const other = encodeCitp({ kind: 'PNam', name: 'x' });
  other.set([0x53, 0x44, 0x4d, 0x58], 16);
  const reader = new CitpReader();
  const both = reader.push(Buffer.concat([other, encodeCitp({ kind: 'PNam', name: 'y' })]));
  expect(both).toEqual({ ok: true, value: [{ kind: 'PNam', name: 'y' }] });
});

const fixture = (number: number) => ({ number, universe: 0, channel: number, channels: 1, make: '', name: 'Lamp' });

test('a peer’s patch is whole when its row has ended, and changes lamp by lamp', () => {
  const peer = new CitpPeer();
  const row = CitpPeer.row([1, 2, 3, 70_000].map(fixture), []);
  expect(row.map((one) => (one.kind === 'Ptch' ? one.number : 0))).toEqual([1, 2, 3]);
  for (const message of row.slice(0, -1)) peer.hear(message);
  expect(peer.patchWhole).toBe(false);
  peer.hear(row.at(-1)!);
  expect(peer.patchWhole).toBe(true);
  peer.hear({ kind: 'UPtc', numbers: [2] });
  expect([...peer.patch.keys()]).toEqual([1, 3]);
  peer.hear({ kind: 'UPtc', numbers: [] });
  expect(peer.patch.size).toBe(0);
  expect(CitpPeer.row([1, 2].map(fixture), [2])).toMatchObject([{ number: 2, last: true }]);
});

test('what is selected there: whole, added, taken away', () => {
  const peer = new CitpPeer();
  peer.hear({ kind: 'Sele', whole: true, numbers: [3, 1] });
  peer.hear({ kind: 'Sele', whole: false, numbers: [2] });
  expect(peer.selected).toEqual([1, 2, 3]);
  peer.hear({ kind: 'DeSe', numbers: [1] });
  expect(peer.selected).toEqual([2, 3]);
  peer.hear({ kind: 'Sele', whole: true, numbers: [9] });
  expect(peer.selected).toEqual([9]);
  peer.hear({ kind: 'DeSe', numbers: [] });
  expect(peer.selected).toEqual([]);
});
