import { createSocket } from 'node:dgram';
import { readUdpTable, socketDrops } from './socketDrops';

test('the table of the system is read', () => {
  const text = `   sl  local_address rem_address   st tx_queue rx_queue tr tm->when retrnsmt   uid  timeout inode ref pointer drops
  332: 00000000:15C0 00000000:0000 07 00000000:00000000 00:00000000 00000000     0        0 88401 2 0000000000000000 1205
 1218: 0100007F:1936 00000000:0000 07 00000000:00000000 00:00000000 00000000     0        0 88402 2 0000000000000000 0
`;
  expect(readUdpTable(text)).toEqual([
    { port: 5568, inode: '88401', drops: 1205 },
    { port: 6454, inode: '88402', drops: 0 },
  ]);
});

// Only Linux tells what its sockets lost.
(process.platform === 'linux' ? test : test.skip)(
  'a socket that nobody reads loses packets, and that is counted',
  async () => {
    const socket = createSocket('udp4').unref();
    const port = await new Promise<number>((done) => socket.bind(0, '127.0.0.1', () => done(socket.address().port)));
    socket.setRecvBufferSize(4096);
    const sender = createSocket('udp4').unref();
    await new Promise<void>((done) => sender.connect(port, '127.0.0.1', done));
    // All within one turn: nobody reads meanwhile.
    const bytes = new Uint8Array(1200);
    let left = 200;
    const sent = new Promise<void>((done) => {
      for (let i = 0; i < 200; i += 1) sender.send(bytes, () => (left -= 1) === 0 && done());
    });
    expect(socketDrops([port])).toBeGreaterThan(0);
    expect(socketDrops([port + 1])).toBe(0);
    await sent;
    socket.close();
    sender.close();
  },
);
