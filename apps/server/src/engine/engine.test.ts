import { MessageChannel } from 'node:worker_threads';
import { encodeData } from '@taxiarch/core/protocol/sacn';
import { settings } from '@taxiarch/core/whole/contract';
import { initialOf } from '@taxiarch/core/base/field';
import type { InterfaceInfo } from '@taxiarch/core/network/ip';
import type { EngineSetup } from '../bridge/engineMessages';
import type { EngineToReceiver } from '../bridge/receiverMessages';
import { PacketRing, addressBits } from '../bridge/ring';
import { SharedLevels } from '../bridge/shared';
import { eventually } from '../testing/serverProcess';
import { levelsFrom } from '../testing/wire';
import { Engine } from './engine';

/** A receiving thread that opens whatever it is told to. */
function setupOf(ring = PacketRing.memory(64 * 1024)): EngineSetup {
  const { port1, port2 } = new MessageChannel();
  port2.on('message', (message: EngineToReceiver) => {
    if (message.type === 'use') port2.postMessage({ type: 'done', ask: message.ask, error: undefined });
  });
  port2.unref();
  port1.unref();
  return {
    memory: new SharedLevels().memory,
    ring,
    receiver: port1,
    cid: new Uint8Array(16).fill(1),
    ports: { sacn: 1, artnet: 1 },
    settings: { ...initialOf(settings.fields), interface: 'auto' },
  };
}

const anInterface = (address: string): InterfaceInfo => ({
  name: 'eth0',
  address,
  netmask: '255.0.0.0',
  mac: '02:00:00:00:00:01',
  loopback: false,
  medium: 'wired',
  up: true,
});

describe('an interface that is chosen automatically', () => {
  async function hotOn(first: string) {
    let there = [anInterface(first)];
    const notices: string[] = [];
    const engine = new Engine(
      setupOf(),
      (message) => message.type === 'notice' && notices.push(message.sentence),
      () => there,
    );
    await engine.start(true);
    engine.output.makeHot('Mara', 0);
    const move = (...addresses: string[]) => {
      there = addresses.map(anInterface);
      return engine.followInterface();
    };
    return { engine, notices, move };
  }

  test('and changes while hot: it stops and asks', async () => {
    const { engine, notices, move } = await hotOn('127.0.0.1');
    await move('127.0.0.2');
    expect(engine.output.isHot).toBe(false);
    expect(notices).toEqual([
      'The interface changed while hot, from eth0 127.0.0.1 to eth0 127.0.0.2. Taxiarch made itself safe and sends nothing.',
    ]);
    engine.stop();
  });

  test('and goes away for a while goes on when it is back; another in its place does not', async () => {
    const { engine, notices, move } = await hotOn('127.0.0.1');
    await move();
    await move('127.0.0.1');
    expect([engine.output.isHot, notices]).toEqual([true, []]);
    await move();
    await move('127.0.0.3');
    expect([engine.output.isHot, notices.length]).toEqual([false, 1]);
    engine.stop();
  });

  test('and another that a person chooses is followed', async () => {
    const { engine, notices } = await hotOn('127.0.0.1');
    engine.settings = { ...engine.settings, interface: '127.0.0.9' };
    await engine.followInterface(true);
    expect([engine.output.isHot, notices]).toEqual([true, []]);
    engine.stop();
  });
});

test('packets that came before the engine was made are taken in when it starts', async () => {
  const memory = PacketRing.memory(64 * 1024);
  const ring = new PacketRing(memory);
  const packet = encodeData(levelsFrom({ universe: 7, slots: Uint8Array.of(1, 2, 3) }));
  ring.write(packet, 'sacn', 0, addressBits('127.0.0.9'), 5000, 0);
  const engine = new Engine(setupOf(memory), () => undefined);
  const started = engine.start(true);
  await eventually(
    () => engine.ingest.packets,
    (packets) => packets === 1,
  );
  expect(engine.ingest.universes.map(({ streams }) => streams.length)).toEqual([1]);
  await started;
  engine.stop();
});
