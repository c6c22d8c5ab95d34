/** A bare Node socket that sends on what it takes. Arguments: port, and address and port to send to. */
import { createSocket } from 'node:dgram';

const [port, address, to] = process.argv.slice(2);
const socket = createSocket({ type: 'udp4', reuseAddr: true });
const sending = createSocket('udp4');
socket.on('message', (bytes) => sending.send(bytes, Number(to), address));
socket.bind(Number(port), '127.0.0.1', () => {
  socket.setRecvBufferSize(32 * 1024 * 1024);
  sending.bind(0, '127.0.0.1', () => process.stdout.write('ready\n'));
});
