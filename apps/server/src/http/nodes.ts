/** Nodes on the network: pushing plans to them, making one show itself, looking for them anew. */
import Router from '@koa/router';
import { array, boolean, object, string } from 'yup';
import { ArtNet, encodeAddress } from '@taxiarch/core/artnet';
import type { LocateRequest, PushRequest } from '@taxiarch/core/contract';
import type { LiveHost } from '../live/host';
import { Pusher } from '../nodes/push';
import type { ShowStore } from '../store/store';
import { ProblemError, require400 } from './problem';

const MOST_MACHINES = 1000;

const pushSchema = object({
  machineIds: array()
    .strict()
    .of(string().strict().max(80).required())
    .min(1, 'Name at least one machine.')
    .max(MOST_MACHINES)
    .required('Say which machines: “machineIds” is missing.'),
  snapshotId: string().strict().max(80),
}).noUnknown();

const locateSchema = object({
  address: string().strict().required('Say which node: “address” is missing.'),
  on: boolean().strict().required('Say on: true or on: false.'),
}).noUnknown();

export function nodeRoutes(host: LiveHost, store: ShowStore): Router {
  const router = new Router({ prefix: '/api/nodes' });
  const pusher = new Pusher(host, store);

  const requireHot = (what: string) => {
    if (!host.report()?.output.hot)
      throw new ProblemError(409, 'Safe', `Taxiarch is safe and sends nothing. Make it hot to ${what}.`);
  };

  router.post('/push', async (ctx) => {
    const { machineIds, snapshotId } = require400<PushRequest>(pushSchema, ctx.request.body);
    requireHot('push to nodes');
    const snapshot = store.records().snapshot.find(({ id }) => id === snapshotId);
    if (snapshotId !== undefined && !snapshot)
      throw new ProblemError(404, 'Not here', 'This snapshot is not in the show any more.');
    ctx.body = { results: await pusher.push([...new Set(machineIds)], snapshot) };
  });

  router.post('/locate', async (ctx) => {
    const { address, on } = require400<LocateRequest>(locateSchema, ctx.request.body);
    requireHot('make a node show itself');
    const node = host.report()?.nodes.find((one) => one.address === address && !one.gone);
    if (!node) throw new ProblemError(404, 'Not here', `No node answers at ${address}.`);
    const packets = [encodeAddress({ command: on ? ArtNet.AcLedLocate : ArtNet.AcLedNormal })];
    const silent = await host.ask({ type: 'program', address, mac: node.mac, packets });
    if (silent !== undefined) throw new ProblemError(409, 'No answer', silent);
    ctx.body = (await host.freshReport())?.nodes.find((one) => one.address === address) ?? node;
  });

  router.post('/scan', (ctx) => {
    host.scan();
    ctx.body = { asked: true };
  });
  return router;
}
