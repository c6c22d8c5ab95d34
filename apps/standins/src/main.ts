/** Starts the stand-ins of the demo show: a console, a DMX desk and nodes, each on its own loopback address. */
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { nightFerry } from '@taxiarch/core/demo';
import { openBench } from './bench';
import { BOXES, PURSERS_INPUT } from './boxes';
import { startDesk } from './desk';
import { NodeBox } from './node';
import { pursersDesk } from './pursersDesk';

const { values } = parseArgs({
  options: {
    'sacn-port': { type: 'string', default: '5568' },
    'artnet-port': { type: 'string', default: '6454' },
    'panel-port': { type: 'string', default: '7630' },
    data: { type: 'string' },
  },
});
const udp = {
  sacn: Number(values['sacn-port']),
  artnet: Number(values['artnet-port']),
  panel: Number(values['panel-port']),
};

const LOOPBACK = '127.0.0.1';

const straight = (from: number, to: number, shift: number) =>
  new Map(Array.from({ length: to - from + 1 }, (_, i) => [from + i, from + i + shift]));

async function main(): Promise<void> {
  const folder = values.data;
  const nodes = new Map(
    BOXES.map((box) => [
      box.id,
      new NodeBox(box, udp, folder === undefined ? undefined : join(folder, `${box.id}.json`)),
    ]),
  );
  for (const node of nodes.values()) await node.start();
  pursersDesk((levels) => nodes.get(PURSERS_INPUT.id)!.feed(PURSERS_INPUT.port, levels));
  const { lamp, type } = nightFerry();
  const desk = await startDesk(
    {
      name: 'Bridge desk',
      address: '127.0.0.21',
      cid: '7ff00000-0000-4000-8000-b41d6e000001',
      mac: [2, 0x7f, 0xf0, 0, 0, 0x21],
      priority: 100,
      rate: 40,
      sacn: straight(1, 8, 0),
      artnet: straight(9, 12, -1),
    },
    { lamp, type },
    udp,
  );
  await openBench(LOOPBACK, udp.panel, nodes, new Map([['bridge', desk]]));
  process.stdout.write('The stand-ins are ready.\n');
}

const end = () => process.exit(0);
process.on('SIGINT', end);
process.on('SIGTERM', end);
process.on('disconnect', end);

main().catch((error: NodeJS.ErrnoException & { address?: string }) => {
  process.stderr.write(
    error.code === 'EADDRINUSE'
      ? `The stand-ins cannot have ${error.address ?? 'their address'}: another set of them runs already, or a program uses port ${udp.panel}, ${udp.sacn} or ${udp.artnet}. Stop it, or start with --no-standins.\n`
      : `The stand-ins could not start: ${error.message}\n`,
  );
  process.exit(1);
});
