/** Entry of the thread that receives: it copies each packet into the ring, and does nothing else. */
import { parentPort, workerData } from 'node:worker_threads';
import { Ear, type Ports, type Using } from './ear';
import { goFirst } from './goFirst';
import { PacketRing, addressBits } from './ring';

export interface EarSetup {
  readonly ports: Ports;
  readonly memory: SharedArrayBuffer;
  /** Unix time in milliseconds from which the reader's clock counts */
  readonly epoch: number;
}

/** Orders with `ask` are answered when they are done. */
export type ToEar =
  | { readonly type: 'open'; readonly ask: number }
  | { readonly type: 'use'; readonly next: Using; readonly ask: number }
  | { readonly type: 'join'; readonly universe: number }
  | { readonly type: 'send'; readonly bytes: Uint8Array; readonly address: string }
  | { readonly type: 'close' };

export interface PlainError {
  readonly message: string;
  readonly code: string | undefined;
}

export type FromEar =
  | { readonly type: 'packets' }
  | { readonly type: 'trouble'; readonly error: PlainError }
  | { readonly type: 'done'; readonly ask: number; readonly error: PlainError | undefined };

goFirst(-18);
const { ports, memory, epoch } = workerData as EarSetup;
const port = parentPort!;
const tell = (message: FromEar) => port.postMessage(message);
const plain = (error: NodeJS.ErrnoException): PlainError => ({ message: error.message, code: error.code });
const ring = new PacketRing(memory);
const offset = performance.timeOrigin - epoch;
let lastAddress = '';
let lastBits = 0;

const ear = new Ear(ports, {
  packet(bytes, protocol, address, from) {
    if (address !== lastAddress) {
      lastAddress = address;
      lastBits = addressBits(address);
    }
    if (ring.write(bytes, protocol, lastBits, from, offset + performance.now())) tell({ type: 'packets' });
  },
  trouble: (error) => tell({ type: 'trouble', error: plain(error) }),
});

function answer(ask: number, doing: Promise<void>): void {
  doing.then(
    () => tell({ type: 'done', ask, error: undefined }),
    (error: NodeJS.ErrnoException) => tell({ type: 'done', ask, error: plain(error) }),
  );
}

port.on('message', (message: ToEar) => {
  switch (message.type) {
    case 'open':
      return answer(message.ask, ear.open());
    case 'use':
      return answer(message.ask, ear.use(message.next));
    case 'join':
      return void ear.join(message.universe).catch((error: Error) => tell({ type: 'trouble', error: plain(error) }));
    case 'send':
      return ear.sendFromArtNetPort(message.bytes, message.address);
    case 'close':
      ear.close();
      port.close();
  }
});
