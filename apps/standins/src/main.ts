/** Starts the stand-ins of the demo show: senders, a DMX desk and nodes, each on its own loopback address. */
import { parseArgs } from 'node:util';
import { openStandIns } from './whole';

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

const end = () => process.exit(0);
process.on('SIGINT', end);
process.on('SIGTERM', end);
process.on('disconnect', end);

openStandIns(udp, exchangePorts, Number(values['plug-port']), values.data).then(
  () => process.stdout.write('The stand-ins are ready.\n'),
  (error: NodeJS.ErrnoException & { address?: string }) => {
    process.stderr.write(
      error.code === 'EADDRINUSE'
        ? `The stand-ins cannot have ${error.address ?? 'their address'}: another set of them runs already, or a program uses port ${udp.panel}, ${udp.sacn} or ${udp.artnet}. Stop it, or start with --no-standins.\n`
        : `The stand-ins could not start: ${error.message}\n`,
    );
    process.exit(1);
  },
);
