/** Whether two machines can talk without a router: worked out bit by bit under both masks. */
import type { Machine, Network } from '../../show/records';
import { bitsOf, inNetwork, ipNumber, ipText, isLoopback, maskNumber, maskText, networkOf } from './ipv4';
import { addressesOf, type EffectiveAddress } from './planned';

/** One look from an address to another: what stays when the mask is laid on both. */
export interface MaskLook {
  readonly from: string;
  readonly to: string;
  readonly mask: string;
  readonly prefix: number;
  /** Bits of both addresses, and of the mask */
  readonly fromBits: string;
  readonly toBits: string;
  readonly maskBits: string;
  /** The network that each belongs to, under that mask */
  readonly fromNetwork: string;
  readonly toNetwork: string;
  readonly same: boolean;
  /** First bit, counted from 1 at the left, in which the networks differ; 0 if they do not */
  readonly differsAt: number;
}

export interface Reach {
  readonly reaches: boolean;
  /** The whole answer in one sentence */
  readonly sentence: string;
  readonly looks: readonly MaskLook[];
  /** The addresses that were compared; the pair that works, if one does */
  readonly pair: readonly [EffectiveAddress, EffectiveAddress] | undefined;
}

function look(from: EffectiveAddress, to: EffectiveAddress, prefix: number): MaskLook {
  const [one, other] = [networkOf(from.number, prefix), networkOf(to.number, prefix)];
  return {
    from: from.text,
    to: to.text,
    mask: maskText(prefix),
    prefix,
    fromBits: bitsOf(from.number),
    toBits: bitsOf(to.number),
    maskBits: bitsOf(maskNumber(prefix)),
    fromNetwork: ipText(one),
    toNetwork: ipText(other),
    same: one === other,
    differsAt: one === other ? 0 : Math.clz32(one ^ other) + 1,
  };
}

/** Whether an address lies in a loopback network that the show declares to be its stand-ins'. */
export const isStandIn = (address: number, networks: readonly Network[]): boolean =>
  networks.some((one) => one.standIn && inNetwork(address, ipNumber(one.network) ?? 0, one.prefix));

/** Whether two addresses see each other: each must find the other in its own network. */
export const addressesReach = (
  one: Pick<EffectiveAddress, 'number' | 'prefix'>,
  other: Pick<EffectiveAddress, 'number' | 'prefix'>,
): boolean => inNetwork(other.number, one.number, one.prefix) && inNetwork(one.number, other.number, other.prefix);

/**
 * Can `one` reach `other`, and get an answer? Machines on loopback reach only themselves, unless the
 * show says that loopback is where its stand-ins live.
 */
export function canReach(one: Machine, other: Machine, networks: readonly Network[]): Reach {
  const none = (sentence: string): Reach => ({ reaches: false, sentence, looks: [], pair: undefined });
  if (one.id === other.id) return none(`${one.name} is one machine; it always reaches itself.`);
  const [here, there] = [addressesOf(one), addressesOf(other)];
  if (here.length === 0) return none(`${one.name} has no address yet, so nobody can say.`);
  if (there.length === 0) return none(`${other.name} has no address yet, so nobody can say.`);
  const pairs = here.flatMap((a) => there.map((b) => [a, b] as const));
  const shut = (a: EffectiveAddress) => isLoopback(a.number) && !isStandIn(a.number, networks);
  const open = pairs.filter(([a, b]) => !shut(a) && !shut(b));
  const works = open.find(([a, b]) => addressesReach(a, b) && a.number !== b.number);
  const pair = works ?? open[0] ?? pairs[0]!;
  const looks = [look(pair[0], pair[1], pair[0].prefix), look(pair[1], pair[0], pair[1].prefix)];
  const say = (reaches: boolean, sentence: string): Reach => ({ reaches, sentence, looks, pair });
  if (works) return say(true, `Yes: ${pair[0].text} and ${pair[1].text} are in one network, by both masks.`);
  if (open.length === 0)
    return say(false, 'No: 127 is loopback. What is sent there never leaves the machine that sends it.');
  if (pair[0].number === pair[1].number) return say(false, `No: both have the address ${pair[0].text}.`);
  const [out, back] = looks as [MaskLook, MaskLook];
  if (!out.same && !back.same)
    return say(false, `No: ${one.name} is in network ${out.fromNetwork}, ${other.name} in ${back.fromNetwork}.`);
  return out.same
    ? say(
        false,
        `Not both ways: ${one.name} finds ${other.name} in its network, but by the mask of ${other.name} (${back.mask}) the way back leaves its own.`,
      )
    : say(
        false,
        `Not both ways: by the mask of ${one.name} (${out.mask}) ${other.name} is outside its network, though ${other.name} would find it.`,
      );
}

/** What a look says, for somebody who has never seen a mask. */
export function explain({ from, to, prefix, fromNetwork, toNetwork, same, differsAt }: MaskLook): string {
  const part =
    prefix % 8 === 0
      ? `the first ${prefix / 8 === 1 ? 'number' : `${prefix / 8} numbers`}`
      : `the first ${prefix} bits`;
  return same
    ? `The mask of ${from} keeps ${part}. For both that is ${fromNetwork}: ${from} sends straight to ${to}.`
    : `The mask of ${from} keeps ${part}. That is ${fromNetwork} for itself and ${toNetwork} for ${to}, different from bit ${differsAt} on: ${from} takes ${to} for somebody outside.`;
}
