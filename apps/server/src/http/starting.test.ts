/** A request that is made while the server starts is answered: when it is ready, or with 503 and when to ask again. */
import { request } from 'node:http';
import { ServerProcess, newFolder, removeFolder } from '../testing/serverProcess';

jest.setTimeout(180_000);

interface Answer {
  readonly status: number;
  readonly again: string | undefined;
}

/** One request of its own connection; undefined while nobody listens on the port. */
const ask = (port: number): Promise<Answer | undefined> =>
  new Promise((done) => {
    const asked = request({ port, host: '127.0.0.1', path: '/api/openapi.json', agent: false }, (answer) => {
      answer.resume();
      answer.once('end', () => done({ status: answer.statusCode!, again: answer.headers['retry-after'] }));
    });
    asked.once('error', () => done(undefined));
    asked.end();
  });

test('every request from the first second on is answered', async () => {
  const folder = newFolder();
  const server = await ServerProcess.begin(folder);
  const answers: Answer[] = [];
  while (!answers.some(({ status }) => status === 200)) {
    const some = await Promise.all(Array.from({ length: 8 }, () => ask(server.port)));
    answers.push(...some.flatMap((one) => one ?? []));
  }
  const before = answers.filter(({ status }) => status !== 200);
  // A new folder takes long to begin: it was asked meanwhile.
  expect(before.length).toBeGreaterThan(0);
  for (const { status, again } of before) expect([status, Number(again)]).toEqual([503, expect.any(Number) as number]);
  expect(await server.stop()).toBe(0);
  removeFolder(folder);
});
