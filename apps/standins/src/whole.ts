/** All stand-ins of the demo show but the visualiser, which is a process of its own: put together, and on their bench. */
import { join } from 'node:path';
import { hungShip, nightFerry } from '@taxiarch/core/whole/demo';
import { ADAPTERS, AdapterBox } from './adapter/adapterBox';
import { openBench } from './bench';
import { openExchange, type ExchangePorts } from './exchange/exchangeBox';
import { BRIDGE_EXCHANGE } from './exchange/setups';
import { BOXES, PURSERS_INPUT } from './boxes';
import { CuePlayer, Looks } from './cues';
import { WallPlayer } from './gangway';
import type { Ports } from './network';
import { NodeBox } from './node';
import { PixelPlayer } from './pixels';
import { pursersDesk } from './pursersDesk';
import { RigBox } from './rig/rigBox';
import { startSender } from './sender';
import { BRIDGE_DESK, GANGWAY_PANEL, PORTHOLE, STERN_DESK, TENDER_TABLET } from './senders';

const LOOPBACK = '127.0.0.1';
/** Where the visualiser has its panel */
const VISUALISER = '127.0.0.24';

/** `folder` is where they keep what was set; without one they forget. Rejects if an address or port is taken. */
export async function openStandIns(
  udp: Ports,
  exchangePorts: ExchangePorts,
  plugPort: number,
  folder?: string,
): Promise<void> {
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
  const adapters = ADAPTERS.map((setup) => new AdapterBox(setup, plugPort));
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
}
