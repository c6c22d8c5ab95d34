/** Can A reach B? Two machines, and the answer worked out bit by bit under their masks. */
import { useState } from 'react';
import { ScrollView, View } from 'react-native';
import { canReach, explain, type MaskLook } from '@taxiarch/core/network/ip';
import { useShow } from '@/data/show';
import { Pick, Screen, Section, Sentence, StateWord, Text } from '@/ui';

/** Bits kept by the mask stand out; those behind it are pale; the first that differs is marked. */
function Bits({ label, bits, prefix, differsAt }: { label: string; bits: string; prefix: number; differsAt: number }) {
  let place = 0;
  return (
    <View>
      <Text kind="small">{label}</Text>
      <Text kind="mono">
        {[...bits].map((bit, i) => {
          if (bit === ' ') return <Text key={i}> </Text>;
          place += 1;
          const tone = place === differsAt ? 'fault' : place <= prefix ? 'text' : 'soft';
          return (
            <Text key={i} kind="mono" tone={tone} className={place > prefix ? 'opacity-50' : ''}>
              {bit}
            </Text>
          );
        })}
      </Text>
    </View>
  );
}

function Look({ look }: { look: MaskLook }) {
  const { from, to, mask, prefix, fromBits, toBits, maskBits, differsAt, same } = look;
  return (
    <Section title={`From ${from}, mask ${mask}`}>
      <ScrollView horizontal>
        <View className="gap-1">
          <Bits label={from} bits={fromBits} prefix={prefix} differsAt={differsAt} />
          <Bits label={to} bits={toBits} prefix={prefix} differsAt={differsAt} />
          <Bits label="mask" bits={maskBits} prefix={prefix} differsAt={0} />
        </View>
      </ScrollView>
      <View className="flex-row items-center gap-3">
        <StateWord state={same ? 'fine' : 'must fix'} />
        <Text className="flex-1">{explain(look)}</Text>
      </View>
    </Section>
  );
}

export function ReachPage() {
  const { records } = useShow();
  const machines = [...records.machine].sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const one = machines.find(({ id }) => id === from);
  const other = machines.find(({ id }) => id === to);
  const answer = one && other && canReach(one, other, records.network);
  const options = [{ value: '', label: 'Choose' }, ...machines.map(({ id, name }) => ({ value: id, label: name }))];
  return (
    <Screen sentence={<Sentence>{answer ? answer.sentence : 'Can one machine reach another?'}</Sentence>}>
      <View className="flex-row gap-2">
        <View className="flex-1">
          <Pick label="From" options={options} value={from} onChange={setFrom} />
        </View>
        <View className="flex-1">
          <Pick label="To" options={options} value={to} onChange={setTo} />
        </View>
      </View>
      {!answer && (
        <Text kind="soft">
          Choose two. What is planned is compared under both masks, because an answer has to find its way back.
        </Text>
      )}
      {answer?.looks.map((look) => (
        <Look key={look.from} look={look} />
      ))}
    </Screen>
  );
}
