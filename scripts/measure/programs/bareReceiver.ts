/** A bare Node socket that counts what it takes. Argument: port. Prints the bytes it may hold; asked, the count. */
import { createSocket } from 'node:dgram';
import { enlarge } from './steady';

let heard = 0;
const socket = createSocket({ type: 'udp4', reuseAddr: true });
socket.on('message', () => (heard += 1));
socket.bind(Number(process.argv[2]), '127.0.0.1', () => {
  enlarge(socket);
  process.stdout.write(`${socket.getRecvBufferSize()}\n`);
});
process.on('message', () => process.send!(heard));
