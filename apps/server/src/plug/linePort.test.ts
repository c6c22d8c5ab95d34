/** A serial port of this computer as a DMX line: break, mark, start code, slots; one frame after the other. */
import { openSerialLine, type SerialLike } from './linePort';
import { nearest, placeOf } from './plugs';
import { PLAIN_MACHINE, type Machine } from '@taxiarch/core/show/records';
import { until } from '../testing/until';

type Done = (error: Error | null) => void;

/** A port that notes what is done to it; a drain ends when the test says so. */
function fakePort(over: Partial<SerialLike> = {}) {
  const did: string[] = [];
  const listeners = new Map<string, (given: never) => void>();
  let drained: Done | undefined;
  const port: SerialLike = {
    open: (done) => done(null),
    set: ({ brk, rts }, done) => {
      did.push(`brk ${String(brk)} rts ${String(rts)}`);
      done(null);
    },
    write: (bytes) => did.push(`${bytes.length} bytes from ${bytes[0]}`) > 0,
    drain: (done) => (drained = done),
    close: (done) => done(null),
    on: (event: string, act: (given: never) => void) => listeners.set(event, act),
    ...over,
  };
  const emit = (event: string, given: unknown) => listeners.get(event)?.(given as never);
  return { port, did, emit, drain: () => drained?.(null) };
}

function opened(input = false, over: Partial<SerialLike> = {}) {
  const fake = fakePort(over);
  const came: Uint8Array[] = [];
  const gone: string[] = [];
  const events = { came: (bytes?: Uint8Array) => bytes && came.push(bytes), gone: (why: string) => gone.push(why) };
  const line = openSerialLine('/dev/plug', fake.port, input, events as never);
  return { ...fake, came, gone, line };
}

test('a frame is a break, a mark, start code 0 and the slots; the next waits until it has left', async () => {
  const { line, did, drain } = opened();
  const port = await line;
  port.send(Uint8Array.of(7, 8));
  expect(port.free).toBe(false);
  await until(() => did.length === 3);
  expect(did).toEqual(['brk true rts false', 'brk false rts false', '3 bytes from 0']);
  drain();
  await until(() => port.free);
});

test('an input listens, and gives what comes', async () => {
  const { line, emit, came } = opened(true);
  await line;
  emit('data', Buffer.from([0, 1, 2]));
  expect(came).toEqual([Uint8Array.of(0, 1, 2)]);
});

test('unplugged, or unable to make a break: gone, in a sentence, once', async () => {
  const pulled = opened();
  await pulled.line;
  pulled.emit('close', null);
  pulled.emit('error', new Error('late'));
  expect(pulled.gone).toEqual(['The adapter at /dev/plug was unplugged.']);
  const unable = opened(false, { set: (_lines, done) => done(new Error('not supported')) });
  (await unable.line).send(Uint8Array.of(1));
  await until(() => unable.gone.length === 1);
  expect(unable.gone[0]).toContain('makes no break: not supported');
});

test('one that cannot be opened is refused with its reason', async () => {
  const { line } = opened(false, { open: (done) => done(new Error('Permission denied')) });
  await expect(line).rejects.toThrow('Permission denied');
});

test('an adapter is known by its serial number, or by where it is on the network', () => {
  const machine = (serial: string, at: string) =>
    ({ ...PLAIN_MACHINE, id: 'm', rev: 1, name: 'Plug', serial, line: { at, slots: 512, routeId: null } }) as Machine;
  expect(placeOf(machine('A12', ''))).toMatchObject({ value: { kind: 'serial', serial: 'A12' } });
  expect(placeOf(machine('A12', '10.0.0.46:2217'))).toMatchObject({
    value: { kind: 'net', host: '10.0.0.46', port: 2217 },
  });
  expect(placeOf(machine('', ''))).toMatchObject({ ok: false });
  expect(placeOf(machine('', 'x:0'))).toMatchObject({ ok: false });
});

test('what is at the far end is held against the frame that it comes nearest to, of equal ones the newest', () => {
  const frame = (...plug: number[]) => ({ here: new Uint8Array(512), plug: Uint8Array.from(plug) });
  const passed = [frame(1, 1), frame(2, 2), frame(3, 3), frame(2, 2)];
  expect(nearest(passed, [2, 2, 0])).toBe(passed[3]);
  expect(nearest(passed, [1, 9])).toBe(passed[0]);
  expect(nearest([], [1])).toBeUndefined();
});
