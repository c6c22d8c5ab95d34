import { MessageChannel } from 'node:worker_threads';
import { encodeData } from '@taxiarch/core/sacn';
import { settings } from '@taxiarch/core/contract';
import { initialOf } from '@taxiarch/core/field';
import { PacketRing, addressBits } from '../bridge/ring';
import { SharedLevels } from '../bridge/shared';
import { eventually } from '../testing/serverProcess';
import { Engine } from './engine';

test('packets that came before the engine was made are taken in when it starts', async () => {
  const memory = PacketRing.memory(64 * 1024);
  const ring = new PacketRing(memory);
  const packet = encodeData({
    cid: new Uint8Array(16).fill(9),
    sourceName: 'Early desk',
    priority: 100,
    syncAddress: 0,
    sequence: 1,
    preview: false,
    terminated: false,
    forceSync: false,
    universe: 7,
    startCode: 0,
    slots: Uint8Array.of(1, 2, 3),
  });
  ring.write(packet, 'sacn', 0, addressBits('127.0.0.9'), 5000, 0);
  const { port1, port2 } = new MessageChannel();
  port2.unref();
  port1.unref();
  const engine = new Engine(
    {
      memory: new SharedLevels().memory,
      ring: memory,
      receiver: port1,
      cid: new Uint8Array(16).fill(1),
      ports: { sacn: 1, artnet: 1 },
      settings: initialOf(settings.fields),
    },
    () => undefined,
  );
  // Nobody answers that sockets are open: packets are taken in all the same.
  void engine.start(true);
  await eventually(
    () => engine.ingest.packets,
    (packets) => packets === 1,
  );
  expect(engine.ingest.universes.map(({ streams }) => streams.length)).toEqual([1]);
  engine.stop();
});
