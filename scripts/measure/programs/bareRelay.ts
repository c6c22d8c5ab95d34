/** A bare Node socket that sends on what it takes. Arguments: port, and address and port to send to. */
import { createSocket } from 'node:dgram';
import { enlarge } from './steady';

const [port, address, to] = process.argv.slice(2) as [string, string, string];
const socket = createSocket({ type: 'udp4', reuseAddr: true });
const sending = createSocket('udp4');
socket.on('message', (bytes) => sending.send(bytes, Number(to), address));
socket.bind(Number(port), '127.0.0.1', () => {
  enlarge(socket);
  sending.bind(0, '127.0.0.1', () => process.stdout.write('ready\n'));
});
