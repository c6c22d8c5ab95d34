/** A server on real sockets with clients of its feed, for tests of what runs. */
import WebSocket from 'ws';
import { decodeFrame, type FeedText, type LiveReport, type UniverseFrame } from '@taxiarch/core/whole/contract';
import { closeSockets, stopSenders } from './wire';
import { ServerProcess, newFolder, removeFolder } from './serverProcess';

const folder = newFolder();
let running: ServerProcess;

/** Begins before the tests of a file, and is gone after them. */
export function runServer(): void {
  jest.setTimeout(180_000);
  afterEach(stopSenders);
  beforeAll(async () => (running = await ServerProcess.start(folder)));
  afterAll(async () => {
    closeSockets();
    await running.stop();
    removeFolder(folder);
  });
}

export const server = (): ServerProcess => running;
export const live = () => running.get<LiveReport>('/api/live');
export const universeOf = async (key: number) => (await live()).universes.find((one) => one.key === key);

/** A client of the feed. */
export class Client {
  readonly frames: UniverseFrame[] = [];
  readonly texts: FeedText[] = [];
  private constructor(readonly socket: WebSocket) {
    socket.on('message', (data, binary) => {
      if (!binary) this.texts.push(JSON.parse(String(data)) as FeedText);
      else {
        const frame = decodeFrame(new Uint8Array(data as Buffer));
        if (frame?.kind === 'universe') this.frames.push(frame);
      }
    });
  }
  static async open(id: string): Promise<Client> {
    const socket = new WebSocket(`ws://127.0.0.1:${running.port}/feed?client=${id}`);
    const client = new Client(socket);
    await new Promise((done) => socket.once('open', done));
    return client;
  }
  last(): UniverseFrame | undefined {
    return this.frames[this.frames.length - 1];
  }
}

export const hot = (on: boolean) => running.request('POST', '/api/output/hot', { hot: on, by: 'Mara' });
export const take = (client: string, slots: Record<string, number | null>, stay = false) =>
  running.request('POST', '/api/output/take', { client, by: client, slots, stay });
