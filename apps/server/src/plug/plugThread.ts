/** Entry of the thread that keeps DMX adapters: what waits on a port there holds up nothing here. */
import { parentPort, workerData } from 'node:worker_threads';
import { keepBeating } from '../bridge/beat';
import { goFirst } from '../bridge/goFirst';
import { SharedLevels } from '../bridge/shared';
import type { ThreadData, ThreadSays } from '../bridge/supervisor';
import { openNetLine, openSerialLine, serialPorts, type LineEvents, type LinePort } from './linePort';
import { Plug } from './plug';
import type { FromPlug, PlugOrder, PlugSetup, ToPlug } from './plugMessages';

const REPORT_MS = 250;

goFirst(-15);
const port = parentPort!;
const { memory, beat } = workerData as PlugSetup & ThreadData;
keepBeating(beat);
const tell = (message: FromPlug) => port.postMessage(message);
const plugs = new Map<string, Plug>();
const levels = new SharedLevels(memory);
const ports = serialPorts();
// Asked for where it is used; that there are none is no fault by itself.
ports.catch(() => undefined);

async function open({ use, place, name }: PlugOrder, events: LineEvents): Promise<LinePort> {
  if (place.kind === 'net') return openNetLine(place.host, place.port, use === 'in', events);
  const { list, open: openPort } = await ports;
  const found = (await list()).find(({ serial }) => serial !== '' && serial === place.serial);
  if (!found) throw new Error(`${name} is not plugged in: no port has the serial number ${place.serial}.`);
  return openSerialLine(found.path, openPort(found.path), use === 'in', events);
}

const around = {
  levels,
  open,
  frame: (machineId: string, slots: Uint8Array) => tell({ type: 'frame', machineId, slots }),
};

const report = () => tell({ type: 'report', plugs: [...plugs.values()].map((plug) => plug.report()) });

function run(orders: readonly PlugOrder[]): void {
  const wanted = new Map(orders.map((order) => [order.machineId, order]));
  for (const [id, plug] of plugs)
    if (!wanted.has(id)) {
      plug.end();
      plugs.delete(id);
    }
  for (const order of orders) {
    const there = plugs.get(order.machineId);
    if (there?.follow(order)) continue;
    there?.end();
    plugs.set(order.machineId, new Plug(order, around));
  }
  report();
}

port.on('message', (message: ToPlug) => {
  switch (message.type) {
    case 'run':
      return run(message.orders);
    case 'values':
      return tell({ type: 'values', ask: message.ask, passed: plugs.get(message.machineId)?.passed ?? [] });
    case 'list':
      return void ports
        .then(({ list }) => list())
        .then(
          (found) => tell({ type: 'ports', ask: message.ask, ports: found, why: '' }),
          (error: Error) =>
            tell({ type: 'ports', ask: message.ask, ports: [], why: `Serial ports cannot be used: ${error.message}.` }),
        );
    case 'stop':
      for (const plug of plugs.values()) plug.end();
      port.close();
  }
});
setInterval(report, REPORT_MS).unref();
port.postMessage({ type: 'ready' } satisfies ThreadSays);
