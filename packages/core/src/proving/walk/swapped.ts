/** Channels that prove to do each other’s work, and how the plan is brought to what the lamp does. */
import { changed, type Plan } from '../../show/edit';
import type { PatchedLamp } from '../../rig/patch';
import type { FixtureMode, Lamp, Mark } from '../../show/records';
import { channelName } from './words';

export interface Swap {
  readonly lampId: string;
  /** Counted in the mode, from 1 */
  readonly channels: readonly [number, number];
  readonly sentence: string;
  readonly repairs: readonly Plan[];
}

/** The mode with the slots of two channels exchanged; undefined if they take another number of slots. */
function exchanged(mode: FixtureMode, a: number, b: number): FixtureMode | undefined {
  const [one, other] = [mode.channels[a - 1], mode.channels[b - 1]];
  if (!one || !other || one.offsets.length !== other.offsets.length) return undefined;
  if ((one.block ?? 1) !== (other.block ?? 1)) return undefined;
  const channels = mode.channels.map((channel, i) =>
    i === a - 1 ? { ...channel, offsets: other.offsets } : i === b - 1 ? { ...channel, offsets: one.offsets } : channel,
  );
  return { ...mode, channels };
}

/** Whether a mode has the same attributes at the same slots as another. */
const sameWork = (a: FixtureMode, b: FixtureMode): boolean => {
  const work = ({ channels }: FixtureMode) =>
    channels
      .flatMap(({ attribute, offsets, cell = 0, block = 1 }) =>
        offsets.map((offset, byte) => `${block} ${offset} ${attribute} ${cell} ${byte}`),
      )
      .sort()
      .join();
  return work(a) === work(b);
};

/** `marks`: the standing marks of one lamp’s channels. `users`: lamps of its type. */
export function swapsOf(patched: PatchedLamp, marks: readonly Mark[], users: readonly Lamp[]): Swap[] {
  const { lamp, type, mode } = patched;
  const did = new Map(
    marks.filter(({ result, did: other }) => result === 'failed' && other > 0).map((one) => [one.channel, one.did]),
  );
  return [...did].flatMap(([a, b]): Swap[] => {
    if (a >= b || did.get(b) !== a) return [];
    const after = exchanged(mode, a, b);
    const [first, second] = [a, b].map((one) => channelName(mode.channels[one - 1]!)) as [string, string];
    const sentence = `${first} and ${second} of ${lamp.number} ${lamp.name} are swapped.`;
    if (!after) return [{ lampId: lamp.id, channels: [a, b], sentence, repairs: [] }];
    const others = users.filter((one) => one.mode === mode.name && one.id !== lamp.id).length;
    const fitting = type.modes.filter((one) => one !== mode && sameWork(one, after));
    const typed = { ...type, modes: type.modes.map((one) => (one === mode ? after : one)) };
    return [
      {
        lampId: lamp.id,
        channels: [a, b],
        sentence,
        repairs: [
          ...fitting.map((one): Plan => ({
            sentence: `Put ${lamp.name} into the mode ${one.name}, in which ${first} and ${second} stand as was seen`,
            changes: [changed('lamp', lamp, { ...lamp, mode: one.name })],
            lines: [{ subject: `${lamp.number} ${lamp.name}`, before: lamp.mode, after: one.name }],
          })),
          {
            sentence: `Exchanged ${first} and ${second} in ${type.maker} ${type.name}, ${mode.name}`,
            changes: [changed('type', type, typed)],
            lines: [
              {
                subject: `${type.maker} ${type.name}, ${mode.name}`,
                before: `${first} before ${second}`,
                after: `${second} before ${first}${others > 0 ? `, for ${others} other lamp${others === 1 ? '' : 's'} too` : ''}`,
              },
            ],
          },
        ],
      },
    ];
  });
}
