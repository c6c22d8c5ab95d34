/** Entry of the thread that receives: it copies each packet into the ring, and does nothing else. */
import { parentPort, workerData, type MessagePort } from 'node:worker_threads';
import { keepBeating } from '../bridge/beat';
import { breakNow } from '../bridge/breaking';
import { goFirst } from '../bridge/goFirst';
import type { ThreadData, ThreadSays } from '../bridge/supervisor';
import type {
  EngineToReceiver,
  PlainError,
  ReceiverSetup,
  ReceiverToEngine,
  ToReceiver,
} from '../bridge/receiverMessages';
import { Receiver } from './receiver';
import { PacketRing, addressBits } from '../bridge/ring';

goFirst(-18);
const { ports, memory, port, epoch, beat } = workerData as ReceiverSetup & ThreadData;
keepBeating(beat);
let engine = port;
const tell = (message: ReceiverToEngine) => engine.postMessage(message);
const plain = (error: NodeJS.ErrnoException): PlainError => ({ message: error.message, code: error.code });
const ring = new PacketRing(memory);
const offset = performance.timeOrigin - epoch;
/** The socket whose addresses are text */
const IPV6 = 2;
let lastAddress = '';
let lastBits = 0;

/** So many packets the system hands out of one socket in one go; fewer say that none waits any more. */
const IN_ONE_GO = 32;
const NAP_MS = 0.5;
const nobody = new Int32Array(new SharedArrayBuffer(4));
let inThisGo = 0;
/** When this go began; its packets all count as come then, a fifth of a millisecond apart at most. */
let at = 0;

/**
 * Being woken for each packet costs sender and receiver more than the packet. So when none waits any more, a moment
 * passes before the sockets are listened to again: what comes meanwhile waits in their buffers and is taken in one go.
 */
function nap(): void {
  const drained = inThisGo < IN_ONE_GO;
  inThisGo = 0;
  if (drained) Atomics.wait(nobody, 0, 0, NAP_MS);
}

const receiver = new Receiver(ports, {
  packet(bytes, protocol, via, address, from) {
    if (via !== IPV6 && address !== lastAddress) {
      lastAddress = address;
      lastBits = addressBits(address);
    }
    if (inThisGo === 0) {
      at = offset + performance.now();
      setImmediate(nap);
    }
    inThisGo += 1;
    if (ring.write(bytes, protocol, via, via === IPV6 ? address : lastBits, from, at)) tell({ type: 'packets' });
  },
  trouble: (error) => tell({ type: 'trouble', error: plain(error) }),
  joined: (state) => tell({ type: 'joined', state }),
  joinedBySixth: (joined) => tell({ type: 'joinedBySixth', joined }),
});

function answer(ask: number, doing: Promise<void>): void {
  doing.then(
    () => tell({ type: 'done', ask, error: undefined }),
    (error: NodeJS.ErrnoException) => tell({ type: 'done', ask, error: plain(error) }),
  );
}

function listenTo(to: MessagePort): void {
  engine = to;
  to.on('message', (message: EngineToReceiver) => {
    switch (message.type) {
      case 'use':
        return answer(message.ask, receiver.use(message.next));
      case 'join':
        return void receiver
          .join(message.universes)
          .catch((error: Error) => tell({ type: 'trouble', error: plain(error) }));
      case 'send':
        return receiver.sendFromArtNetPort(message.bytes, message.address);
    }
  });
}

listenTo(port);
parentPort!.on('message', (message: ToReceiver) => {
  switch (message.type) {
    case 'engine':
      engine.close();
      return listenTo(message.port);
    case 'break':
      return breakNow(message.how);
    case 'close':
      receiver.close();
      engine.close();
      parentPort!.close();
  }
});

receiver.open().then(
  () => parentPort!.postMessage({ type: 'ready' } satisfies ThreadSays),
  (error: Error) => parentPort!.postMessage({ type: 'failed', why: error.message } satisfies ThreadSays),
);
