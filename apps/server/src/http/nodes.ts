/** Nodes on the network: pushing plans to them, having one flash, looking for them anew. */
import { ArtNet, encodeAddress } from '@taxiarch/core/protocol/artnet';
import type { EngineHost } from '../bridge/host';
import { Pusher } from '../nodes/push';
import type { ShowDoor } from '../bridge/showDoor';
import type { Practising } from '../practise/practising';
import type { Handlers } from './api';
import { ProblemError } from '../problemError';

type NodeHandlers = Pick<Handlers, 'push' | 'locate' | 'scan'>;

export function nodeHandlers(host: EngineHost, show: ShowDoor, practising: Practising): NodeHandlers {
  const pusher = new Pusher(host, show);

  const requireHot = (what: string) => {
    if (!host.now().output.hot)
      throw new ProblemError('safe', `Taxiarch is safe and sends nothing. Make it hot to ${what}.`);
  };

  return {
    push: async ({ body: { machineIds, snapshotId } }) => {
      requireHot('push to nodes');
      const snapshot = snapshotId === undefined ? undefined : await show.snapshot(snapshotId);
      if (snapshotId !== undefined && !snapshot)
        throw new ProblemError('not-here', 'This snapshot is not in the show any more.');
      const results = await pusher.push([...new Set(machineIds)], snapshot);
      await practising.pushed(results);
      return { results };
    },

    locate: async ({ body: { address, on } }) => {
      requireHot('make a node’s lights flash');
      const node = host.now().nodes.find((one) => one.address === address && !one.gone);
      if (!node) throw new ProblemError('not-here', `No node answers at ${address}.`);
      const packets = [encodeAddress({ command: on ? ArtNet.AcLedLocate : ArtNet.AcLedNormal })];
      const silent = await host.ask({ type: 'program', address, mac: node.mac, packets });
      if (silent !== undefined) throw new ProblemError('no-answer', silent);
      return (await host.freshReport()).nodes.find((one) => one.address === address) ?? node;
    },

    scan: () => {
      host.scan();
      return { asked: true };
    },
  };
}
