/** What the server orders of the engine, carried out. */
import { encodePoll } from '@taxiarch/core/protocol/artnet';
import { ROUTE_KEYS } from '@taxiarch/core/whole/contract/feed';
import { breakNow } from '../bridge/breaking';
import type { ToEngine } from '../bridge/engineMessages';
import type { EngineWhole } from './whole';
import { FaderFinder } from './listening/faderFinder';
import { program } from './nodes/programmer';
import { outputSettings } from './wiring';

/** A fader that a person moves to be learnt is looked for this often. */
const LEARN_MS = 50;

type Order<T extends ToEngine['type']> = Extract<ToEngine, { type: T }>;

function plan(engine: EngineWhole, { networks, universes, router, machines }: Order<'plan'>): void {
  engine.nodes.expect(machines);
  engine.networks = networks;
  engine.planned = universes.map(({ key }) => key);
  void engine.followInterface();
  for (const { key, merge } of universes) engine.ingest.universe(key)?.setMode(merge);
  engine.router.setPlan(router);
  engine.membership.refresh();
  engine.polling.changed(engine.clock());
}

function watch(engine: EngineWhole, { keys, slots }: Order<'watch'>): void {
  engine.watched = new Set(keys);
  engine.membership.refresh();
  engine.polling.changed(engine.clock());
  engine.inspected = slots;
  engine.router.watch(new Set(keys.filter((key) => key >= ROUTE_KEYS).map((key) => key - ROUTE_KEYS)));
  engine.reports.forgetInspected();
  for (const [key] of slots) engine.ingest.universe(key)?.rememberChanges();
}

function giveBack(engine: EngineWhole, { order: { client, slots } }: Order<'giveBack'>): void {
  const wanted = slots && new Set(slots.map(([key, slot]) => key * 512 + slot));
  engine.output.giveBack(
    (hold, key, slot) => (!client || hold.client === client) && (!wanted || wanted.has(key * 512 + slot)),
  );
}

function hot(engine: EngineWhole, { hot: wanted, by }: Order<'hot'>): void {
  if (wanted) engine.output.makeHot(by, engine.unixTime());
  else {
    engine.router.stopAll();
    engine.output.makeSafe();
  }
}

async function programNode(engine: EngineWhole, { address, mac, packets, ask }: Order<'program'>): Promise<void> {
  const refused = await program(
    {
      send: (bytes, to) => engine.sockets.sendFromArtNetPort(bytes, to),
      pollAll: () => engine.sockets.sendFromArtNetPort(encodePoll(), 'broadcast'),
      whereIs: () => engine.nodes.whereIs(mac, address),
      allPagesSince: (since) => engine.nodes.allPagesSince(mac, address, since),
      now: engine.clock,
    },
    address,
    packets,
  );
  engine.tell({ type: 'answer', ask, refused });
}

function learn(engine: EngineWhole, { ask }: Order<'learn'>): void {
  const finder = new FaderFinder(engine.clock());
  const timer = setInterval(() => {
    const found = finder.look(engine.ingest.universes, engine.clock());
    if (found === undefined) return;
    clearInterval(timer);
    engine.tell({ type: 'learned', ask, found });
  }, LEARN_MS);
}

/** A fresh report goes before the answer, so that whoever asked finds what it brought. */
function answer(engine: EngineWhole, ask: number, refused?: string): void {
  engine.reports.tellNow();
  engine.tell({ type: 'answer', ask, refused });
}

export function carryOut(engine: EngineWhole, order: ToEngine): void {
  switch (order.type) {
    case 'settings': {
      const before = engine.settings;
      engine.settings = order.settings;
      engine.output.configure(outputSettings(order.settings));
      void engine.followInterface(
        before.interface !== order.settings.interface || before.artnetInterface !== order.settings.artnetInterface,
      );
      engine.membership.refresh();
      engine.polling.changed(engine.clock());
      return;
    }
    case 'plan':
      return plan(engine, order);
    case 'watch':
      return watch(engine, order);
    case 'levels':
      return engine.output.setLevels(order.client, order.key, order.levels);
    case 'hot':
      hot(engine, order);
      return answer(engine, order.ask);
    case 'take':
      return answer(engine, order.ask, engine.output.take(order.order, engine.unixTime()));
    case 'picture':
      return answer(engine, order.ask, engine.pictures.show(order.order, engine.clock(), engine.unixTime()));
    case 'tunePicture':
      return answer(engine, order.ask, engine.pictures.tune(order));
    case 'endPicture':
      return answer(engine, order.ask, engine.pictures.end(order.client, order.id));
    case 'giveBack':
      giveBack(engine, order);
      return answer(engine, order.ask);
    case 'runRoutes':
      return answer(engine, order.ask, engine.router.run(order.ids, order.on, order.by, engine.unixTime()));
    case 'giveBackRoute':
      return answer(engine, order.ask, engine.router.giveBack(order.id));
    case 'learn':
      return learn(engine, order);
    case 'sweep':
      return answer(engine, order.ask, engine.sweep.start(order.ranges, engine.clock()));
    case 'stopSweep':
      engine.sweep.stop();
      return answer(engine, order.ask);
    case 'nodes':
      return engine.tell({
        type: 'nodes',
        ask: order.ask,
        page: engine.nodes.page(order.from, engine.clock(), engine.epoch),
      });
    case 'lamp':
      return void engine.lamps
        .ask(order.port, order.requests, order.urgent)
        .then((answers) => engine.tell({ type: 'lamp', ask: order.ask, answers, use: engine.lamps.use(order.port) }));
    case 'table':
      return void engine.lamps
        .table(order.port, order.afresh)
        .then((table) => engine.tell({ type: 'table', ask: order.ask, table }));
    case 'noLamps':
      return engine.lamps.cancel();
    case 'program':
      return void programNode(engine, order);
    case 'report':
      return answer(engine, order.ask);
    case 'scan':
      return engine.sockets.sendFromArtNetPort(encodePoll(), 'broadcast');
    case 'plugged':
      return engine.ingest.plugged(order, engine.clock());
    case 'leave':
      return engine.output.giveBack((hold) => hold.client === order.client && !hold.stay);
    case 'receiver':
      return engine.sockets.reconnect(order.port);
    case 'break':
      return breakNow(order.how);
    case 'stop':
      return engine.stop();
  }
}
