/** Much written to a connection, no faster than the other end takes it. */
import type { Socket } from 'node:net';

const drained = (socket: Socket): Promise<void> =>
  new Promise((go) => {
    const on = () => {
      socket.off('drain', on).off('close', on);
      go();
    };
    socket.on('drain', on).on('close', on);
  });

/** Resolves once all is handed over; false if the connection ended before. */
export async function pour(socket: Socket, pieces: Iterable<Uint8Array>): Promise<boolean> {
  for (const piece of pieces) {
    if (socket.destroyed) return false;
    if (!socket.write(piece)) await drained(socket);
  }
  return !socket.destroyed;
}
