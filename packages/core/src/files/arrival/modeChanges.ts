/** How a mode has changed since, channel by channel. */
import { attributeLabel, blockOf, footprintOf, formatOffsets, formatRanges } from '../../rig/fixture';
import type { FixtureChannel, FixtureMode, FixtureType } from '../../show/records';

/** One thing that is otherwise: which, how it was and how it is; empty where it was or is not there. */
export interface FieldChange {
  readonly field: string;
  readonly was: string;
  readonly is: string;
}

const slotText = (channel: FixtureChannel): string =>
  `${blockOf(channel) > 1 ? `block ${blockOf(channel)}, ` : ''}${channel.offsets.length > 1 ? 'slots' : 'slot'} ${formatOffsets(channel.offsets)}`;

const nameText = ({ attribute, cell }: FixtureChannel): string =>
  `${attributeLabel(attribute)}${cell === undefined ? '' : ` ${cell}`}`;

/** Attribute, cell, and which of those that are alike in both: by it a channel is known again */
function keyed(mode: FixtureMode | undefined): Map<string, FixtureChannel> {
  const counts = new Map<string, number>();
  return new Map(
    (mode?.channels ?? []).map((channel) => {
      const name = `${channel.attribute} ${channel.cell ?? ''}`;
      const count = (counts.get(name) ?? 0) + 1;
      counts.set(name, count);
      return [`${name} ${count}`, channel];
    }),
  );
}

/** Channels that are new, gone or otherwise, in the order of their slots; undefined is a mode that is not there. */
export function modeChanges(was: FixtureMode | undefined, is: FixtureMode | undefined): FieldChange[] {
  const [before, after] = [keyed(was), keyed(is)];
  const changes: { at: number; change: FieldChange }[] = [];
  const note = (channel: FixtureChannel, field: string, had: string, has: string) =>
    had !== has &&
    changes.push({ at: blockOf(channel) * 1000 + channel.offsets[0]!, change: { field, was: had, is: has } });
  for (const [key, channel] of after) {
    const there = before.get(key);
    const name = nameText(channel);
    if (!there) {
      note(channel, name, '', slotText(channel));
      continue;
    }
    note(channel, name, slotText(there), slotText(channel));
    note(channel, `${name}, default`, String(there.default), String(channel.default));
    note(channel, `${name}, highlight`, String(there.highlight), String(channel.highlight));
    note(channel, `${name}, named values`, formatRanges(there.ranges), formatRanges(channel.ranges));
  }
  for (const [key, channel] of before) if (!after.has(key)) note(channel, nameText(channel), slotText(channel), '');
  return changes.sort((a, b) => a.at - b.at).map(({ change }) => change);
}

const sizeText = (mode: FixtureMode | undefined): string => (mode ? `${footprintOf(mode)} channels` : '');

/** What of a type is otherwise: itself, its modes, and within those its channels. */
export function typeChanges(was: FixtureType, is: FixtureType): FieldChange[] {
  const changes: FieldChange[] = [];
  const say = (field: string, had: string, has: string) => had !== has && changes.push({ field, was: had, is: has });
  say('name', `${was.maker} ${was.name}`, `${is.maker} ${is.name}`);
  say('kind', was.kind, is.kind);
  say('answers RDM', was.answers, is.answers);
  // One of ours has nothing in a file that it does not say itself.
  if (was.file !== null && is.file !== null && was.file !== is.file) say('file', 'the one that is kept', 'another');
  for (const field of ['pan', 'tilt', 'beam', 'field'] as const)
    say(field, was[field] === 0 ? '' : `${was[field]}°`, is[field] === 0 ? '' : `${is[field]}°`);
  const names = [...new Set([...was.modes, ...is.modes].map(({ name }) => name))];
  for (const name of names) {
    const [before, after] = [was, is].map(({ modes }) => modes.find((mode) => mode.name === name));
    if (before && after)
      changes.push(...modeChanges(before, after).map((one) => ({ ...one, field: `${name}: ${one.field}` })));
    else say(`mode ${name}`, sizeText(before), sizeText(after));
  }
  return changes;
}
