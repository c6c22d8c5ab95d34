/** Starts the stand-ins of the demo show: a console and three nodes, each on its own loopback address. */
import { parseArgs } from 'node:util';
import { nightFerry } from '@taxiarch/core/demo';
import { startDesk } from './desk';
import { startNode, type NodeSetup } from './node';

const { values } = parseArgs({
  options: {
    'sacn-port': { type: 'string', default: '5568' },
    'artnet-port': { type: 'string', default: '6454' },
    'panel-port': { type: 'string', default: '7630' },
  },
});
const udp = {
  sacn: Number(values['sacn-port']),
  artnet: Number(values['artnet-port']),
  panel: Number(values['panel-port']),
};

/** As set at the front panels: these nodes count Art-Net from 0, so port n of a universe u has Port-Address u − 1. */
const carrying = (...universes: number[]) =>
  universes.map((universe) => ({ portAddress: universe - 1, sacnUniverse: universe }));

const NODES: readonly NodeSetup[] = [
  {
    shortName: 'Wheelhouse node',
    longName: 'Marram Pair 2, wheelhouse',
    address: '127.0.0.31',
    mac: [2, 0x7f, 0xf1, 0, 0, 0x31],
    ports: carrying(1, 12),
  },
  {
    shortName: 'Boiler node',
    longName: 'Marram Quad 4, engine room',
    address: '127.0.0.32',
    mac: [2, 0x7f, 0xf1, 0, 0, 0x32],
    ports: carrying(6, 9, 10, 11),
  },
  {
    shortName: 'Car deck node',
    longName: 'Tern Rack 8, car deck',
    address: '127.0.0.33',
    mac: [2, 0x7f, 0xf2, 0, 0, 0x33],
    ports: carrying(2, 3, 4, 5, 7, 8, 13, 14),
  },
];

const straight = (from: number, to: number, shift: number) =>
  new Map(Array.from({ length: to - from + 1 }, (_, i) => [from + i, from + i + shift]));

async function main(): Promise<void> {
  for (const node of NODES) await startNode(node, udp);
  const { lamp, type } = nightFerry();
  await startDesk(
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
