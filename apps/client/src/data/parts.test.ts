/** A part of the client that does not come is asked for until it does; one that exists no more is said. */
import { fetchFile, late, loader, partLoader } from './parts';

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());
const pass = (ms: number) => jest.advanceTimersByTimeAsync(ms);
const answers = (status: number) => {
  globalThis.fetch = jest.fn(() => Promise.resolve({ status } as Response));
};
const away = () => {
  globalThis.fetch = jest.fn(() => Promise.reject(new Error('away')));
};

test('a part that is refused while the network is away is there when it is back', async () => {
  away();
  let refusals = 5;
  const once = jest.fn(() => (refusals-- > 0 ? Promise.reject(new Error('no')) : Promise.resolve()));
  const there = jest.fn();
  void loader(once)('/part.js').then(there);
  await pass(3500);
  expect(there).not.toHaveBeenCalled();
  expect(late.read()).toBe(true);
  await pass(2000);
  expect(there).toHaveBeenCalled();
  expect(late.read()).toBe(false);
});

test('a request that is never answered is not waited for alone', async () => {
  let asked = 0;
  const once = () => (asked++ === 0 ? new Promise<void>(() => undefined) : Promise.resolve());
  const there = jest.fn();
  void loader(once)('/part.js').then(there);
  await pass(9000);
  expect(there).not.toHaveBeenCalled();
  await pass(1500);
  expect(there).toHaveBeenCalled();
});

test('a part is fetched once, however many screens need it', async () => {
  const once = jest.fn(() => Promise.resolve());
  const load = loader(once);
  await Promise.all([load('/part.js'), load('/part.js')]);
  await load('/part.js');
  expect(once).toHaveBeenCalledTimes(1);
});

test('a server of another version has no such part: that is said, and the next time it is asked for anew', async () => {
  answers(404);
  const once = jest.fn(() => Promise.reject(new Error('no')));
  const load = loader(once);
  await expect(load('/part.js')).rejects.toThrow('another version');
  expect(late.read()).toBe(false);
  once.mockImplementation(() => Promise.resolve() as Promise<never>);
  await load('/part.js');
});

test('a part runs when all its files are there', async () => {
  away();
  const taken = jest.fn((url: string) => Promise.resolve(`ran ${url}`));
  let refusals = 1;
  const once = jest.fn((url: string) =>
    url === '/shared.js' && refusals-- > 0 ? Promise.reject(new Error('no')) : Promise.resolve(),
  );
  const load = partLoader({ needed: { 'page.js': ['/page.js', '/shared.js'] }, take: taken }, once);
  const ran = load('page.js');
  await pass(500);
  expect(taken).not.toHaveBeenCalled();
  await pass(1000);
  await expect(ran).resolves.toBe('ran /page.js');
  expect(once.mock.calls.map(([url]) => url)).toEqual(['/page.js', '/shared.js', '/shared.js']);
});

test('a file is there with its last byte, and one that is refused is not there', async () => {
  const body = jest.fn(() => Promise.reject(new Error('torn')));
  globalThis.fetch = jest.fn(() => Promise.resolve({ ok: true, arrayBuffer: body } as unknown as Response));
  await expect(fetchFile('/part.js')).rejects.toThrow('torn');
  globalThis.fetch = jest.fn(() => Promise.resolve({ ok: false } as Response));
  await expect(fetchFile('/part.js')).rejects.toThrow('/part.js did not come.');
});
