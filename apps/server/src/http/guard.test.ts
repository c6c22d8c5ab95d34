import { Guard } from './guard';

const asking = (host: string, origin?: string, cookie?: string) => ({
  headers: { host, ...(origin && { origin }), ...(cookie && { cookie }) },
});

describe('reachable from this computer only', () => {
  const guard = new Guard(4630, false);

  test.each(['127.0.0.1:4630', 'localhost:4630', 'LOCALHOST:4630'])('%s is its own', (host) =>
    expect(guard.refuse(asking(host))).toBeUndefined(),
  );
  test.each(['127.0.0.1', '127.0.0.1:4631', 'taxiarch.example:4630', '192.0.2.1:4630', ''])('%s is another', (host) =>
    expect(guard.refuse(asking(host))).toMatch(/names another host/),
  );
  test.each(['http://evil.example', 'https://127.0.0.1:4630', 'null', 'http://127.0.0.1:4631'])(
    'a page of %s is refused',
    (origin) => expect(guard.refuse(asking('127.0.0.1:4630', origin))).toMatch(/another origin/),
  );
  test('nobody has to pair', () => {
    expect(guard.code).toBeUndefined();
    expect(guard.admits(asking('127.0.0.1:4630'))).toBe(true);
  });
});

describe('reachable by others', () => {
  const MINUTE = 60_000;

  test('the code lets in whoever types it, however it is written, and nobody else', () => {
    const guard = new Guard(4630, true);
    expect(guard.code).toMatch(/^[A-Z2-9]{8}$/);
    expect(guard.admits(asking('127.0.0.1:4630', undefined, 'taxiarch=guess'))).toBe(false);
    const spaced = `${guard.code!.slice(0, 4).toLowerCase()} ${guard.code!.slice(4)}`;
    const paired = guard.pair(spaced, '192.0.2.7', 0);
    if (!('cookie' in paired)) throw new Error('refused');
    expect(paired.cookie).toMatch(/HttpOnly; SameSite=Strict/);
    const pass = paired.cookie.split(';')[0]!;
    expect(guard.admits(asking('127.0.0.1:4630', undefined, `other=1; ${pass}`))).toBe(true);
    expect(new Guard(4630, true).admits(asking('127.0.0.1:4630', undefined, pass))).toBe(false);
  });

  test('five tries a minute from one address; another address has its own', () => {
    const guard = new Guard(4630, true);
    const attempt = (address: string, now: number, code = 'WRONGONE') => guard.pair(code, address, now);
    for (let i = 0; i < 5; i += 1) expect(attempt('192.0.2.7', i)).toMatchObject({ wait: false });
    expect(attempt('192.0.2.7', 10, guard.code)).toMatchObject({ wait: true });
    expect(attempt('192.0.2.8', 10)).toMatchObject({ wait: false });
    expect('cookie' in attempt('192.0.2.7', MINUTE + 5, guard.code)).toBe(true);
  });
});
