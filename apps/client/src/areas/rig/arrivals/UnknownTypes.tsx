/** Types that a file names and does not hold: each is asked once, and remembered. */
import { useState } from 'react';
import { View } from 'react-native';
import { modesByName } from '@taxiarch/core/files/arrival';
import type { ImportChoiceBody, UnknownTypeReply } from '@taxiarch/core/whole/contract';
import { footprintOf } from '@taxiarch/core/rig/fixture';
import { PLAIN_TYPE, type FixtureType } from '@taxiarch/core/show/records';
import { Pick, Section, StateWord, Text, count } from '@/ui';
import { useTypes } from '../types/choose';

type Said = NonNullable<ImportChoiceBody['types']>[number];

const typeText = ({ maker, name }: FixtureType): string => `${maker} ${name}`;

function Unknown({ one, onChoose }: { one: UnknownTypeReply; onChoose: (said: Said) => void }) {
  const types = useTypes();
  const like = one.like.flatMap((id) => types.find((type) => type.id === id) ?? []);
  const others = types
    .filter((type) => !type.unknown && !one.like.includes(type.id))
    .sort((a, b) => typeText(a).localeCompare(typeText(b)));
  const type = types.find(({ id }) => id === one.typeId);
  const say = (typeId: string, modes: Readonly<Record<string, string>>) =>
    onChoose({ key: one.key, typeId, modes: Object.entries(modes).map(([said, mode]) => ({ said, mode })) });
  return (
    <View role="group" aria-label={one.name} className="gap-2 border-b border-line pb-3">
      <View className="flex-row items-center gap-2">
        <Text kind="strong" className="flex-1" numberOfLines={2}>
          {one.name}
        </Text>
        <Text kind="small">{count(one.lamps, 'lamp')}</Text>
        {!one.settled && <StateWord state="look at" />}
      </View>
      <Pick
        label={`Type of ${one.name}`}
        hideLabel
        options={[
          { value: '', label: 'Not known yet; its lamps wait' },
          ...like.map((each) => ({ value: each.id, label: `${typeText(each)} (alike)` })),
          ...others.map((each) => ({ value: each.id, label: typeText(each) })),
        ]}
        value={one.typeId}
        onChange={(typeId) => {
          const next = types.find(({ id }) => id === typeId);
          const asked = { ...PLAIN_TYPE, id: '', rev: 0, maker: '', name: '', kind: 'other' as const };
          const modes = one.modes.map((name) => ({ name, channels: [] }));
          const named = next ? modesByName({ ...asked, modes }, next) : {};
          // A type of one mode leaves nothing to ask.
          const only =
            next?.modes.length === 1 ? Object.fromEntries(one.modes.map((mode) => [mode, next.modes[0]!.name])) : {};
          say(typeId, { ...only, ...named });
        }}
      />
      {type &&
        one.modes.map((mode) => (
          <View key={mode} className="flex-row items-center gap-2">
            <Text kind="small" className="flex-1">
              Mode “{mode}”
            </Text>
            <View className="flex-[2]">
              <Pick
                label={`Mode “${mode}” of ${one.name}`}
                hideLabel
                options={[
                  { value: '', label: 'not said' },
                  ...type.modes.map((each) => ({
                    value: each.name,
                    label: `${each.name}, ${count(footprintOf(each), 'channel')}`,
                  })),
                ]}
                value={one.modeFor[mode] ?? ''}
                onChange={(is) => say(type.id, { ...one.modeFor, [mode]: is })}
              />
            </View>
          </View>
        ))}
    </View>
  );
}

interface Props {
  unknown: readonly UnknownTypeReply[];
  open: number;
  onChoose: (types: Said[]) => void;
}

export function UnknownTypes({ unknown, open, onChoose }: Props) {
  const [all, setAll] = useState(false);
  const shown = all ? unknown : unknown.filter(({ settled }, i) => !settled || i < 3);
  return (
    <Section
      title={
        open > 0
          ? `${count(open, 'type')} that the file does not hold: say what ${open === 1 ? 'it is' : 'they are'}`
          : 'Types, as they were said'
      }
    >
      <Text kind="small">Their lamps can be imported now and be given a type later.</Text>
      {shown.map((one) => (
        <Unknown key={one.key} one={one} onChoose={(said) => onChoose([said])} />
      ))}
      {shown.length < unknown.length && (
        <Text tone="press" role="button" className="py-2" onPress={() => setAll(true)}>
          Show all {unknown.length}
        </Text>
      )}
    </Section>
  );
}
