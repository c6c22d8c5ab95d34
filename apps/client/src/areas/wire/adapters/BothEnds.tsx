/** 512 levels at both ends of an adapter; where the ends differ it is marked. */
import { memo, useState } from 'react';
import { View } from 'react-native';
import type { PlugValuesReply } from '@taxiarch/core/whole/contract';
import { Check, Section, Text, count } from '@/ui';

interface Given {
  readonly values: PlugValuesReply;
  readonly use: 'out' | 'in';
  /** Slots that leave it */
  readonly slots: number;
}

/** The two ends that are held against each other, and what they are called. */
function endsOf({ here, plug, far }: PlugValuesReply, use: 'out' | 'in') {
  // What an input received is held against what was sent to it; the universe may hold more than the input.
  if (use === 'in')
    return far
      ? { first: far, second: plug, names: ['at the desk', 'as received here'] }
      : { first: plug, second: here, names: ['by the plug', 'in the universe here'] };
  return { first: here, second: far ?? plug, names: ['here', far ? 'on the line' : 'out of the plug'] };
}

const Cell = memo(function Cell({ channel, first, second }: { channel: number; first: number; second: number }) {
  const differs = first !== second;
  return (
    <View
      aria-label={`Channel ${channel}: ${first} and ${second}${differs ? ', differing' : ''}`}
      className={`w-[64px] rounded px-1 ${differs ? 'bg-fault' : first > 0 ? 'bg-raised' : ''}`}
    >
      <Text kind="monoSmall" tone={differs ? 'ground' : 'soft'} className="text-[10px]">
        {channel}
      </Text>
      <Text kind="monoSmall" numberOfLines={1} tone={differs ? 'ground' : 'text'}>
        {differs ? `${first}·${second}` : first}
      </Text>
    </View>
  );
});

export function BothEnds({ values, use, slots }: Given) {
  const [only, setOnly] = useState(false);
  const { first, second, names } = endsOf(values, use);
  if (!first || !second) return <Text kind="soft">Nothing has gone through it yet.</Text>;
  const rows = Array.from({ length: use === 'out' ? slots : 512 }, (_, i) => ({
    channel: i + 1,
    first: first[i] ?? 0,
    second: second[i] ?? 0,
  }));
  const differing = rows.filter((one) => one.first !== one.second);
  return (
    <Section title="Both ends, channel by channel">
      <Text role="status">
        {differing.length === 0
          ? `All ${rows.length} channels are alike ${names[0]} and ${names[1]}.`
          : `${count(differing.length, 'channel')} of ${rows.length} ${differing.length === 1 ? 'differs' : 'differ'}, ${names[0]} and ${names[1]}.`}
      </Text>
      {values.says !== '' && <Text kind="small">Said by the stand-in at its far end: {values.says}</Text>}
      <Check label="Only channels that differ or are above 0" on={only} onChange={setOnly} />
      <View className="flex-row flex-wrap gap-1">
        {rows
          .filter((one) => !only || one.first > 0 || one.second > 0)
          .map((one) => (
            <Cell key={one.channel} {...one} />
          ))}
      </View>
    </Section>
  );
}
