/** Why? The answer to that question for one slot, in sentences. */
import type { Protocol } from '../../base/address';
import type { MergeMode, SlotContender } from '../../signal/merge';

/** A contender with the name of its stream. */
export interface NamedContender extends SlotContender {
  readonly name: string;
}

/**
 * Why a slot has the level that it has. `contenders` in any order; those that do not control the
 * slot are named too, since a person may wonder about them.
 */
export function whySlot(contenders: readonly NamedContender[], mode: MergeMode, protocol: Protocol): string {
  const controlling = contenders.filter(({ priority }) => priority >= 0);
  const others = contenders.filter(({ priority }) => priority < 0).map(({ name }) => name);
  const aside =
    others.length > 0
      ? ` ${others.join(' and ')} ${others.length > 1 ? 'send' : 'sends'} the universe but not this slot.`
      : '';
  if (controlling.length === 0) return `Nobody controls this slot.${aside}`;
  const top = Math.max(...controlling.map(({ priority }) => priority));
  const equals = controlling.filter(({ priority }) => priority === top);
  const lower = controlling.filter(({ priority }) => priority < top);
  if (controlling.length === 1) return `${equals[0]!.name} is the only one that controls it.${aside}`;
  if (equals.length === 1)
    return `${equals[0]!.name} wins with priority ${top}, above ${lower.map(({ name, priority }) => `${name} with ${priority}`).join(' and ')}.${aside}`;
  const names = equals.map(({ name, value }) => `${name} (${value})`).join(' and ');
  const rule = mode === 'htp' ? 'the highest level counts' : 'the latest change counts';
  // Art-Net has no priority.
  return protocol === 'artnet'
    ? `${names} send it: ${rule}.${aside}`
    : `${names} send at the same priority ${top}: ${rule}.${aside}`;
}
