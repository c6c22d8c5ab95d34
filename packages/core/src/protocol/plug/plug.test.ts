import fc from 'fast-check';
import {
  afterLoss,
  ComPortReader,
  encodeFrame,
  encodeHeardFrame,
  encodeOpening,
  fastestRate,
  FrameReader,
  frameUs,
  isBreak,
  isHeardBreak,
} from '.';

const slots = fc.uint8Array({ minLength: 24, maxLength: 512 });

test('a frame is break on, break off, start code and slots, with 255 written twice', () => {
  expect(Buffer.from(encodeFrame(Uint8Array.from([1, 255, 0]))).toString('hex')).toBe(
    'fffa2c0505fff0' + 'fffa2c0506fff0' + '00' + '01' + 'ffff' + '00',
  );
});

test('the opening sets 250 kbaud, 8 bits, no parity, two stop bits', () => {
  const commands = new ComPortReader()
    .push(encodeOpening(false))
    .flatMap((event) => (event.kind === 'command' ? [[event.code, [...event.value]]] : []));
  expect(commands).toEqual([
    [1, [0, 3, 208, 144]],
    [2, [8]],
    [3, [1]],
    [4, [2]],
    // No flow control either way, DTR on, RTS low: a plain adapter sends.
    ...[1, 14, 8, 12].map((value) => [5, [value]]),
    [10, [16]],
  ]);
});

test('frames come out as they went in, in whatever portions', () => {
  fc.assert(
    fc.property(fc.array(slots, { minLength: 1, maxLength: 4 }), fc.integer({ min: 1, max: 700 }), (all, portion) => {
      for (const [encode, breaks] of [
        [encodeFrame, (event: Parameters<typeof isBreak>[0]) => isBreak(event) === 'on'],
        [encodeHeardFrame, isHeardBreak],
      ] as const) {
        const wire = Buffer.concat([...all.map(encode), encode(Uint8Array.from([0]))]);
        const reader = new ComPortReader();
        const frames = new FrameReader();
        const got: Uint8Array[] = [];
        for (let at = 0; at < wire.length; at += portion)
          for (const event of reader.push(new Uint8Array(wire.subarray(at, at + portion)))) {
            const frame = breaks(event)
              ? frames.lineBreak(at)
              : event.kind === 'data'
                ? frames.push(event.bytes, at)
                : undefined;
            if (frame) got.push(frame.slots);
          }
        expect(got).toEqual(all.map((one) => new Uint8Array(one)));
      }
    }),
    { numRuns: 40 },
  );
});

test('any bytes are passed over, and what comes after is read', () => {
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 200 }), (bytes) => {
      const reader = new ComPortReader();
      reader.push(bytes);
      // Whatever state it was left in, an end of command and a break bring it back.
      reader.push(Uint8Array.from([0, 255, 240, 255, 240]));
      const events = reader.push(encodeFrame(Uint8Array.from([7])));
      expect(events.some((event) => isBreak(event) === 'on')).toBe(true);
    }),
  );
});

test('without word of breaks frames are told apart by pauses, and the break’s own zero is dropped', () => {
  const reader = new FrameReader(2);
  const frame = Uint8Array.from([0, 0, 10, 20, 30]);
  expect(reader.push(frame, 100)).toBeUndefined();
  expect(reader.push(frame.subarray(2), 100.5)).toBeUndefined();
  const whole = reader.push(frame, 123);
  expect(whole).toMatchObject({ startCode: 0, at: 100 });
  expect([...whole!.slots]).toEqual([10, 20, 30, 10, 20, 30]);
});

test('the break’s zero is no start code, whatever comes after it, also in a portion of its own', () => {
  const reader = new FrameReader(2);
  reader.push(Uint8Array.from([0]), 100);
  reader.push(Uint8Array.from([0xcc, 1, 2]), 100.5);
  expect(reader.push(Uint8Array.from([0, 0, 9]), 123)).toMatchObject({ startCode: 0xcc });
  expect(reader.lineBreak(146)).toMatchObject({ startCode: 0, slots: Uint8Array.from([9]) });
});

test('a full frame is told at once; what is beyond it is stray', () => {
  const reader = new FrameReader();
  reader.lineBreak(5);
  const full = reader.push(new Uint8Array(513).fill(9, 1), 6);
  expect(full!.slots).toHaveLength(512);
  reader.push(Uint8Array.from([1, 2]), 7);
  expect(reader.stray).toBe(2);
});

test('the line carries 44 full frames a second, and more of shorter ones', () => {
  expect(frameUs(512)).toBe(22_676);
  expect(Math.floor(fastestRate(512))).toBe(44);
  expect(fastestRate(24)).toBeGreaterThan(800);
});

test('what is left when nobody sends: held, held for a while, faded, full', () => {
  const last = new Uint8Array(512).fill(100);
  const at = (kind: Parameters<typeof afterLoss>[1]['kind'], silent: number) =>
    afterLoss(last, { kind, after: 2, over: 4 }, silent)[0];
  expect([at('hold', 60), at('look', 60), at('full', 0)]).toEqual([100, 100, 255]);
  expect([at('hold-black', 1.9), at('hold-black', 2)]).toEqual([100, 0]);
  expect([at('fade', 0), at('fade', 1), at('fade', 4), at('fade', 9)]).toEqual([100, 75, 0, 0]);
});
