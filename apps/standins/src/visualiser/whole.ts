/** The visualiser stand-in: on its own address, with its own settings and its own patch. */
import { formatUniverses } from '@taxiarch/core/base/address';
import type { StandIn, VisualiserFaults } from '@taxiarch/core/whole/contract';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { lampTable, writeTable } from '@taxiarch/core/files/format';
import { writeMvr } from '@taxiarch/core/files/format/archive';
import { openExchange, type ExchangePorts } from '../exchange/exchangeBox';
import { recordsFromFile } from '../exchange/fromFiles';
import { CROW_EXCHANGE } from '../exchange/setups';
import type { Ports } from '../network';
import { openPanel } from '../panel';
import { RIGHT } from './faults';
import { shipPage } from '../shipPage';
import { ADDRESSES, NAME, Receiver, type OwnUniverse } from './receiver';
import { Scene, withOtherMode } from './scene';

/** The lamp whose mode can be wrong on purpose. */
const ODD_LAMP = 101;

/** Its universes count on from 1 as its display says them, by the protocol that was agreed. */
const ferry = nightFerry();
const UNIVERSES: readonly OwnUniverse[] = ferry.universe.map(({ number, protocol }) => ({ number, protocol }));
/** What it draws it knows from the file that the show gave out. */
let patch = recordsFromFile(writeMvr({ ...ferry, run: [], machine: [] }, () => undefined));

export async function openVisualiser(udp: Ports, exchangePorts: ExchangePorts): Promise<void> {
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
  const says = () => {
    const lacks = missing();
    const not = lacks.length > 0 ? `; not ${formatUniverses(lacks)}` : '';
    return `Receives ${receiver.received().length} of ${UNIVERSES.length} universes at ${receiver.address}${not}.`;
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
    rigPage: `http://${ADDRESSES.right}:${udp.panel}/exchange`,
    ports: [],
    visualiser: {
      faults,
      received: receiver.received().length,
      universes: UNIVERSES.length,
      missing: formatUniverses(missing()),
      page: `http://${ADDRESSES.right}:${udp.panel}/`,
    },
  });

  const redraw = () => {
    records = faults.otherMode ? withOtherMode(patch, ODD_LAMP) : patch;
    scene = new Scene(records);
  };
  // The file that it offers is an older one of its own; what is handed to it, it draws.
  const exchange = await openExchange(CROW_EXCHANGE, patch, exchangePorts, (given) => {
    patch = given;
    redraw();
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
        wrong: missing().length > 0,
        says: says(),
        lamps: scene.lamps,
      }),
      /** Wrong on purpose, or right again; what is not named stays as it is. */
      set: async (given) => {
        const next = { ...faults, ...(given as Partial<VisualiserFaults>) };
        const moved = next.base !== faults.base || next.iface !== faults.iface;
        faults = next;
        redraw();
        if (moved && on) await receiver.change(settings());
        receiver.deaf = faults.early;
        return report();
      },
      power: async ({ on: wanted }) => {
        receiver.stop();
        on = wanted === true;
        exchange.run(on);
        // Started again, after its sender: it notices everything.
        faults = { ...faults, early: false };
        if (on) await receiver.change(settings());
        return report();
      },
      ...exchange.acts,
    },
    {
      ...exchange.pages,
      '': () => ({ type: 'text/html; charset=utf-8', body: shipPage('Crow’s nest') }),
      light: () => ({ type: 'application/octet-stream', body: scene.render((number) => receiver.levelsOf(number)) }),
      'patch.csv': () => ({ type: 'text/csv; charset=utf-8', body: writeTable(lampTable(records)) }),
    },
  );
}
