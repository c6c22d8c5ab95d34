/** Starts the stand-ins of the demo show: senders, a DMX desk and nodes, each on its own loopback address. */
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { hungShip, nightFerry } from '@taxiarch/core/whole/demo';
import { ADAPTERS, AdapterBox } from './adapter/adapterBox';
import { openBench } from './bench';
import { openExchange } from './exchange/exchangeBox';
import { BRIDGE_EXCHANGE } from './exchange/setups';
import { BOXES, PURSERS_INPUT } from './boxes';
import { CuePlayer, Looks } from './cues';
import { WallPlayer } from './gangway';
import { NodeBox } from './node';
import { PixelPlayer } from './pixels';
import { pursersDesk } from './pursersDesk';
import { RigBox } from './rig/rigBox';
import { startSender } from './sender';
import { BRIDGE_DESK, GANGWAY_PANEL, PORTHOLE, STERN_DESK, TENDER_TABLET } from './senders';

const { values } = parseArgs({
  options: {
    'sacn-port': { type: 'string', default: '5568' },
    'artnet-port': { type: 'string', default: '6454' },
    'plug-port': { type: 'string', default: '2217' },
    'panel-port': { type: 'string', default: '7630' },
    'mdns-port': { type: 'string', default: '5353' },
    'citp-port': { type: 'string', default: '4809' },
    data: { type: 'string' },
  },
});
const udp = {
  sacn: Number(values['sacn-port']),
  artnet: Number(values['artnet-port']),
  panel: Number(values['panel-port']),
};
const exchangePorts = { mdns: Number(values['mdns-port']), citp: Number(values['citp-port']) };

const LOOPBACK = '127.0.0.1';
/** Where the visualiser, a process of its own, has its panel */
const VISUALISER = '127.0.0.24';

async function main(): Promise<void> {
  const folder = values.data;
  const fileOf = (id: string) => (folder === undefined ? undefined : join(folder, `${id}.json`));
  const ship = hungShip(Math.random);
  const nodes = new Map(BOXES.map((box) => [box.id, new NodeBox(box, udp, fileOf(box.id), ship)]));
  const rig = new RigBox(ship, ({ box, port }) => nodes.get(box)?.output(port), fileOf('rig'));
  await rig.start(udp.panel);
  for (const node of nodes.values()) await node.start();
  pursersDesk((levels) => nodes.get(PURSERS_INPUT.id)!.feed(PURSERS_INPUT.port, levels));
  const { lamp, type } = nightFerry();
  const cues = () => new CuePlayer(new Looks(lamp, type));
  const senders = [
    await startSender(BRIDGE_DESK, cues(), udp, await openExchange(BRIDGE_EXCHANGE, nightFerry(), exchangePorts)),
    await startSender(STERN_DESK, cues(), udp),
    await startSender(PORTHOLE, new PixelPlayer(), udp),
    await startSender(GANGWAY_PANEL, new WallPlayer(), udp),
    await startSender(TENDER_TABLET, new WallPlayer(), udp),
  ];
  const adapters = ADAPTERS.map((setup) => new AdapterBox(setup, Number(values['plug-port'])));
  for (const adapter of adapters) await adapter.start(udp.panel);
  await openBench(
    LOOPBACK,
    udp.panel,
    nodes,
    new Map(senders.map((one) => [one.report().id, one])),
    `http://${VISUALISER}:${udp.panel}`,
    rig,
    new Map(adapters.map((one) => [one.report().id, one])),
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
