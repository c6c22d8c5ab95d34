/** The roll call and what is done to lamps, over HTTP. */
import { ArtNet, encodeAddress } from '@taxiarch/core/protocol/artnet';
import type { EngineHost } from '../bridge/host';
import { ProblemError } from '../problemError';
import type { RollCall } from '../roll/rollCall';
import type { Feed } from '../feed/feed';
import type { Identifying } from '../roll/identifying';
import type { LampSetter } from '../roll/setter';
import type { Handlers } from './api';

type RollHandlers = Pick<
  Handlers,
  | 'callRoll'
  | 'cancelRoll'
  | 'leaveAlone'
  | 'readGreeting'
  | 'setGreeting'
  | 'setLamps'
  | 'identify'
  | 'readParameters'
  | 'setParameter'
  | 'switchRdm'
  | 'readLampType'
>;

export function rollHandlers(
  host: Pick<EngineHost, 'now' | 'ask' | 'freshReport'>,
  roll: RollCall,
  setter: LampSetter,
  identifying: Identifying,
  feed: Pick<Feed, 'mind'>,
): RollHandlers {
  const requireHot = (what: string) => {
    if (!host.now().output.hot)
      throw new ProblemError('safe', `Taxiarch is safe and sets nothing. Make it hot to ${what}.`);
  };
  const greeting = () => ({ greets: roll.greets });

  return {
    callRoll: ({ body }) => {
      void roll.call(body);
    },
    cancelRoll: () => roll.cancel(),
    leaveAlone: ({ body: { key, on } }) => roll.leaveAlone(key, on),
    readGreeting: greeting,
    setGreeting: ({ body: { greets } }) => {
      roll.setGreet(greets);
      return greeting();
    },

    setLamps: async ({ body: { lamps } }) => {
      requireHot('set lamps');
      return { results: await setter.set(lamps) };
    },

    identify: async ({ body: { uids, on, client = '' } }) => {
      requireHot('have lamps show themselves');
      const results = await identifying.set(client, uids, on);
      feed.mind(client);
      return { results };
    },

    readParameters: async ({ params: { uid } }) => ({
      lamp: roll.lamp(uid),
      parameters: await setter.parameters(uid),
    }),

    switchRdm: async ({ body: { address, port, on } }) => {
      requireHot('switch RDM');
      const node = host.now().nodes.find((one) => one.address === address && !one.gone);
      const its = node?.ports.find(({ number, direction }) => number === port && direction === 'out');
      if (!node || !its) throw new ProblemError('not-here', `No node at ${address} has an output ${port}.`);
      const command = (on ? ArtNet.AcRdmEnable : ArtNet.AcRdmDisable) + its.index;
      const packets = [encodeAddress({ command, bindIndex: its.page })];
      const silent = await host.ask({ type: 'program', address, mac: node.mac, packets });
      if (silent !== undefined) throw new ProblemError('no-answer', silent);
      const now = (await host.freshReport()).nodes.find((one) => one.address === address);
      return { on: now?.ports.find(({ number, direction }) => number === port && direction === 'out')?.rdm ?? false };
    },

    readLampType: ({ params: { uid } }) => setter.type(uid),

    setParameter: async ({ body: { uids, pid, part, value } }) => {
      requireHot('set lamps');
      return { results: await setter.setParameter(uids, pid, value, part) };
    },
  };
}
