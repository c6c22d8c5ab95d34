/** `node:net` without a network: servers listen and nobody comes; whoever connects finds nobody. */
import { EventEmitter } from 'node:events';

class Server extends EventEmitter {
  listen(...given: unknown[]): this {
    const done = given.find((one): one is () => void => typeof one === 'function');
    queueMicrotask(() => {
      this.emit('listening');
      done?.();
    });
    return this;
  }

  close(done?: () => void): this {
    if (done) queueMicrotask(done);
    return this;
  }

  address() {
    return { address: '127.0.0.1', port: 0, family: 'IPv4' };
  }

  ref(): this {
    return this;
  }
  unref(): this {
    return this;
  }
}

export const createServer = (): Server => new Server();

class Nobody extends EventEmitter {
  constructor() {
    super();
    queueMicrotask(() =>
      this.emit('error', Object.assign(new Error('connect ECONNREFUSED'), { code: 'ECONNREFUSED' })),
    );
  }
  write(): boolean {
    return true;
  }
  end(): this {
    return this;
  }
  destroy(): this {
    return this;
  }
  setNoDelay(): this {
    return this;
  }
  setTimeout(): this {
    return this;
  }
}

export const connect = (): Nobody => new Nobody();
