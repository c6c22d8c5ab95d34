/** Stand-ins that are set, switched, unplugged and mistaken at random: each by its own panel, as a hand at the box would. */
import { mainAddress } from '@taxiarch/core/network/ip';
import type { StandIn } from '@taxiarch/core/whole/contract';
import { LOSS_KINDS, PORT_MERGES, START_UPS } from '@taxiarch/core/show/records';
import { NO_MISTAKES, type SenderMistakes } from '../../../apps/standins/src/mistakes';
import { between, chosen, type Disturbance, type Random, type Ship } from './ship';

const BENCH = '127.0.0.1';
const handle = (ship: Ship, id: string, act: object) => ship.panel<StandIn[]>(BENCH, 'handle', { id, ...act });
const boxesOf = (ship: Ship) => ship.panel<StandIn[]>(BENCH, 'boxes');

interface Drawn {
  readonly sort: string;
  readonly act: object;
}

const share = (next: Random): number => Math.round(next() * 100) / 100;

function nodeAct(next: Random, box: StandIn, nodes: readonly StandIn[]): Drawn {
  const port = chosen(next, box.ports).number;
  const settings = (sort: string, of: object): Drawn => ({ sort, act: { turn: { port, settings: of } } });
  return chosen<() => Drawn>(next, [
    () => ({ sort: 'no power', act: { power: false } }),
    () => ({ sort: 'unplugged', act: { plugged: false } }),
    () => ({ sort: 'loses', act: { loses: share(next) } }),
    () => ({ sort: 'delays', act: { delays: between(next, 10, 900) } }),
    () => ({ sort: 'deaf to multicast', act: { deaf: { multicast: true } } }),
    () => ({ sort: 'deaf to broadcast', act: { deaf: { broadcast: true } } }),
    () => ({ sort: 'deaf to one', act: { deaf: { to: ['127.0.0.21'] } } }),
    () => ({ sort: 'firmware', act: { firmware: [between(next, 0, 9), between(next, 0, 99)] } }),
    () => ({ sort: 'port turned', act: { turn: { port, wire: between(next, 0, 45) } } }),
    () => settings('use', { use: chosen(next, ['out', 'in', 'off', 'fixed']) }),
    () => settings('protocol', { protocol: chosen(next, ['sacn', 'artnet']) }),
    () => settings('merge', { merge: chosen(next, PORT_MERGES) }),
    () => settings('loss', { loss: { kind: chosen(next, LOSS_KINDS), after: 0, over: 0 } }),
    () => settings('start', { start: chosen(next, START_UPS) }),
    () => settings('rdm', { rdm: next() < 0.5 }),
    () => ({ sort: 'name', act: { turn: { name: 'Deck box' } } }),
    () => ({ sort: 'mask', act: { turn: { mask: '255.255.255.0' } } }),
    () => ({ sort: 'moved', act: { turn: { address: `127.0.0.${between(next, 110, 140)}` } } }),
    () => ({ sort: 'moved onto another', act: { turn: { address: chosen(next, nodes).address } } }),
  ])();
}

function mistakesOf(next: Random, box: StandIn, boxes: readonly StandIn[]): Partial<SenderMistakes> {
  const one = () => between(next, 1, 38);
  return chosen<() => Partial<SenderMistakes>>(next, [
    () => ({ shift: { sacn: between(next, -1, 2), artnet: between(next, -1, 2) } }),
    () => ({ net: between(next, 0, 2), sub: between(next, 1, 3) }),
    () => ({ off: [chosen(next, ['sacn', 'artnet'] as const)] }),
    () => ({ silent: Array.from({ length: between(next, 1, 6) }, one) }),
    () => ({ priority: between(next, 0, 200) }),
    () => ({ rate: between(next, 1, 60) }),
    () => ({ cid: '7ff00000-0000-4000-8000-0000000000aa' }),
    () => ({ from: `127.0.0.${between(next, 100, 109)}` }),
    () => ({ to: chosen(next, boxes).address }),
    () => ({ loses: share(next) }),
    () => ({ syncAddress: between(next, 1, 9) }),
    () => ({ startCode: between(next, 1, 255) }),
    () => ({ slots: between(next, 1, 511) }),
    () => ({ also: [between(next, 1, 45)] }),
  ])();
}

function senderAct(next: Random, box: StandIn, boxes: readonly StandIn[]): Drawn {
  if (next() < 0.15) return { sort: 'stopped', act: { power: false } };
  const mistakes = mistakesOf(next, box, boxes);
  return { sort: Object.keys(mistakes).join(), act: { mistakes } };
}

/** What people at desks do all evening: nothing of it is a fault. */
const plainAct = (next: Random, box: StandIn): Drawn =>
  box.cues.length > 0 && next() < 0.5
    ? { sort: 'cue', act: { cue: chosen(next, box.cues) } }
    : { sort: 'master', act: { master: between(next, 0, 100) } };

/** One box of the bench is disturbed. */
export async function boxDisturbed(next: Random, ship: Ship): Promise<Disturbance> {
  const boxes = (await boxesOf(ship)).filter(
    ({ stranger, kind, ports }) => !stranger && (kind === 'visualiser' || ports.length > 0),
  );
  const nodes = boxes.filter(({ kind }) => kind === 'node');
  const senders = boxes.filter(({ kind }) => ['console', 'media server', 'wall panel'].includes(kind));
  const plain = next() < 0.1;
  const box = plain ? chosen(next, senders) : chosen(next, next() < 0.6 ? nodes : senders);
  const node = box.kind === 'node';
  const { sort, act } = plain ? plainAct(next, box) : node ? nodeAct(next, box, nodes) : senderAct(next, box, boxes);
  const at = (address: string) => ship.records().machine.filter((machine) => mainAddress(machine) === address);
  // Whose address it took is part of it.
  const taken = sort === 'moved onto another' ? (act as { turn: { address: string } }).turn.address : box.address;
  const ids = new Set([box.address, taken].flatMap(at).map(({ id }) => id));
  return {
    sort: `${plain ? 'desk' : node ? 'node' : 'sender'}: ${sort}`,
    says: `${box.name}: ${JSON.stringify(act)}`,
    isMeantBy: ({ about }) => ids.has(about.id),
    harmless: plain,
    ...(sort === 'from' && { sendsBy: [(act as { mistakes: { from: string } }).mistakes.from, box.address] as const }),
    begin: async (running) => {
      // What a model cannot do it refuses, and stays as it is.
      await handle(running, box.id, act).catch(() => undefined);
      return async () => {
        await handle(running, box.id, node ? { reset: true } : { mistakes: NO_MISTAKES, power: true, master: 100 });
      };
    },
  };
}
