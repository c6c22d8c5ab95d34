/** Starts the visualiser stand-in, a process of its own. */
import { parseArgs } from 'node:util';
import { openVisualiser } from './whole';

const { values } = parseArgs({
  options: {
    'sacn-port': { type: 'string', default: '5568' },
    'artnet-port': { type: 'string', default: '6454' },
    'panel-port': { type: 'string', default: '7630' },
    'mdns-port': { type: 'string', default: '5353' },
    'citp-port': { type: 'string', default: '4809' },
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

openVisualiser(udp, exchangePorts).then(
  () => process.stdout.write('The visualiser is ready.\n'),
  (error: Error) => {
    process.stderr.write(`The visualiser stand-in could not start: ${error.message}\n`);
    process.exit(1);
  },
);
