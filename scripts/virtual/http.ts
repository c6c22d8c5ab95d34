/** `node:http` without a network: servers are asked by {@link request} alone. For the front panels of stand-ins. */
import { EventEmitter } from 'node:events';

interface Asked {
  readonly url: string;
  readonly method: string;
  readonly headers: Readonly<Record<string, string>>;
  setEncoding(): void;
  on(event: 'data' | 'end', act: (piece: string) => void): void;
}
interface Reply {
  writeHead(status: number): Reply;
  end(body?: string | Uint8Array): void;
}
type Serve = (asked: Asked, reply: Reply) => void;

const servers = new Map<string, Server>();

class Server extends EventEmitter {
  private place = '';
  constructor(readonly serve: Serve) {
    super();
  }

  listen(port: number, address: string, done?: () => void): this {
    this.place = `${address}:${port}`;
    const taken = servers.has(this.place);
    if (!taken) servers.set(this.place, this);
    queueMicrotask(() =>
      taken
        ? this.emit('error', Object.assign(new Error('listen EADDRINUSE'), { code: 'EADDRINUSE', address, port }))
        : done?.(),
    );
    return this;
  }

  close(done?: () => void): this {
    if (servers.get(this.place) === this) servers.delete(this.place);
    if (done) queueMicrotask(done);
    return this;
  }

  closeAllConnections(): void {}
}

export const createServer = (serve: Serve): Server => new Server(serve);

export interface Answered {
  readonly status: number;
  readonly text: string;
}

/** Asks the server at `address:port`; rejects if nobody serves there. */
export function request(place: string, path: string, body?: string): Promise<Answered> {
  const server = servers.get(place);
  if (!server) return Promise.reject(new Error(`Nobody serves at ${place}.`));
  return new Promise((resolve) => {
    let status = 200;
    const reply: Reply = {
      writeHead: (given) => {
        status = given;
        return reply;
      },
      end: (text = '') => resolve({ status, text: typeof text === 'string' ? text : Buffer.from(text).toString() }),
    };
    server.serve(
      {
        url: path,
        method: body === undefined ? 'GET' : 'POST',
        headers: {},
        setEncoding: () => undefined,
        on: (event, act) => {
          if (event === 'end') queueMicrotask(() => act(''));
          else if (body !== undefined) act(body);
        },
      },
      reply,
    );
  });
}
