/** A program that does nothing but write frames to a serial port by RFC 2217, as evenly as it can; it ends by itself. */
import { connect } from 'node:net';
import { encodeFrame, encodeOpening } from '@taxiarch/core/protocol/plug';

const [port, rate, seconds] = process.argv.slice(2).map(Number);
const slots = new Uint8Array(512);
const socket = connect({ host: '127.0.0.57', port: port!, noDelay: true }, () => {
  socket.write(encodeOpening(false));
  const end = performance.now() + seconds! * 1000;
  let due = performance.now();
  const beat = () => {
    const now = performance.now();
    if (now > end) return void socket.end(() => process.exit(0));
    if (now < due) return void (due - now > 2 ? setTimeout(beat, due - now - 1.6) : setImmediate(beat));
    socket.write(encodeFrame(slots));
    due = Math.max(due + 1000 / rate!, now);
    beat();
  };
  beat();
});
socket.on('data', () => undefined);
