/** The visualiser stand-in: its own process, on its own address, with its own settings and its own patch. */
import { parseArgs } from 'node:util';
import { formatUniverses } from '@taxiarch/core/address';
import type { StandIn, VisualiserFaults } from '@taxiarch/core/contract';
import { nightFerry } from '@taxiarch/core/demo';
import { writeLampTable } from '@taxiarch/core/format';
import { openPanel } from '../panel';
import { RIGHT } from './faults';
import { PAGE } from './page';
import { ADDRESSES, NAME, Receiver, type OwnUniverse } from './receiver';
import { Scene, withOtherMode } from './scene';

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

/** The lamp whose mode can be wrong on purpose. */
const ODD_LAMP = 101;

/** Its universes count on from 1 as its display says them, by the protocol that was agreed. */
const patch = nightFerry();
const UNIVERSES: readonly OwnUniverse[] = patch.universe.map(({ number, protocol }) => ({ number, protocol }));

async function main(): Promise<void> {
  let faults = RIGHT;
  let records = patch;
  let scene = new Scene(records);
  const settings = () => ({ base: faults.base, iface: faults.iface, universes: UNIVERSES });
  const receiver = new Receiver(settings(), udp);
  await receiver.start();
  let on = true;

  const missing = () => {
    const received = new Set(receiver.received());
    return UNIVERSES.map(({ number }) => number).filter((number) => !received.has(number));
  };
  const report = (): StandIn => ({
    id: 'crow',
    name: NAME,
    kind: 'visualiser',
    model: 'Visualiser computer',
    address: receiver.address,
    mask: '255.0.0.0',
    powered: on,
    plugged: true,
    loses: 0,
    delays: 0,
    locating: false,
    cue: '',
    cues: [],
    master: 100,
    faders: [],
    ports: [],
    visualiser: {
      faults,
      received: receiver.received().length,
      universes: UNIVERSES.length,
      missing: formatUniverses(missing()),
      page: `http://${ADDRESSES.right}:${udp.panel}/`,
    },
  });

  await openPanel(
    ADDRESSES.right,
    udp.panel,
    {
      box: report,
      state: () => ({
        address: receiver.address,
        universes: UNIVERSES.length,
        received: receiver.received(),
        missing: missing(),
        lamps: scene.lamps,
      }),
      /** Wrong on purpose, or right again; what is not named stays as it is. */
      set: async (given) => {
        const next = { ...faults, ...(given as Partial<VisualiserFaults>) };
        const moved = next.base !== faults.base || next.iface !== faults.iface;
        faults = next;
        records = faults.otherMode ? withOtherMode(patch, ODD_LAMP) : patch;
        scene = new Scene(records);
        if (moved && on) await receiver.change(settings());
        receiver.deaf = faults.early;
        return report();
      },
      power: async ({ on: wanted }) => {
        receiver.stop();
        on = wanted === true;
        // Started again, after its sender: it notices everything.
        faults = { ...faults, early: false };
        if (on) await receiver.change(settings());
        return report();
      },
    },
    {
      '': () => ({ type: 'text/html; charset=utf-8', body: PAGE }),
      light: () => ({ type: 'application/octet-stream', body: scene.render((number) => receiver.levelsOf(number)) }),
      'patch.csv': () => ({ type: 'text/csv; charset=utf-8', body: writeLampTable(records) }),
    },
  );
  process.stdout.write('The visualiser is ready.\n');
}

const end = () => process.exit(0);
process.on('SIGINT', end);
process.on('SIGTERM', end);
process.on('disconnect', end);

main().catch((error: Error) => {
  process.stderr.write(`The visualiser stand-in could not start: ${error.message}\n`);
  process.exit(1);
});
