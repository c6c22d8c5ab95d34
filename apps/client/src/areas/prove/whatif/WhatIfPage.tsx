/** What if: failures put on a time line, or every one tried; nothing is sent. */
import { useState } from 'react';
import { View } from 'react-native';
import type { WhatIfEvent, WhatIfFrom } from '@taxiarch/core/truth/whatif';
import { useShow } from '@/data/show';
import { usePlayed } from '@/data/whatIf';
import { Button, Choice, Notice, Screen, Section, Sentence, Text, useWide, PageShape } from '@/ui';
import { AddEvent } from './AddEvent';
import { EveryFailure } from './EveryFailure';
import { Played } from './Played';
import { eventText } from './words';

const FROM = [
  { value: 'plan', label: 'The plan' },
  { value: 'now', label: 'Now' },
  { value: 'good', label: 'Kept as good' },
] as const;
const WAYS = [
  { value: 'line', label: 'A time line' },
  { value: 'every', label: 'Everything' },
] as const;
const LENGTHS = [
  { value: '30', label: '30 s' },
  { value: '60', label: '1 min' },
  { value: '300', label: '5 min' },
] as const;

export function WhatIfPage() {
  const wide = useWide();
  const { records, loaded } = useShow();
  const [from, setFrom] = useState<WhatIfFrom>('plan');
  const [way, setWay] = useState<(typeof WAYS)[number]['value']>('line');
  const [length, setLength] = useState<(typeof LENGTHS)[number]['value']>('60');
  const [events, setEvents] = useState<readonly WhatIfEvent[]>([]);
  const { report, trouble } = usePlayed({ from, events, seconds: Number(length) });
  if (!loaded) return <PageShape />;
  const inOrder = [...events].sort((a, b) => a.at - b.at);
  return (
    <Screen
      across={wide}
      sentence={
        <Sentence>
          {way === 'line' && events.length > 0 && trouble === ''
            ? (report?.sentence ?? 'Being played…')
            : 'What if a cable goes, a desk freezes, a place loses power?'}
        </Sentence>
      }
    >
      <View className={wide ? 'flex-row gap-6' : 'gap-4'}>
        <View className={wide ? 'w-[420px] gap-4' : 'gap-4'}>
          <Choice label="How to ask" options={WAYS} value={way} onChange={setWay} />
          <Section title="Begin from">
            <Choice label="Begin from" options={FROM} value={from} onChange={setFrom} />
          </Section>
          {way === 'every' ? (
            <EveryFailure key={from} from={from} />
          ) : (
            <>
              <Section title="What happens">
                {inOrder.map((event) => (
                  <View key={JSON.stringify(event)} className="flex-row items-center gap-2">
                    <Text className="flex-1">{eventText(event, records)}</Text>
                    <Button
                      label={`Take off: ${eventText(event, records)}`}
                      short="Take off"
                      onPress={() => setEvents(events.filter((one) => one !== event))}
                    />
                  </View>
                ))}
                <AddEvent onAdd={(event) => setEvents([...events, event])} />
                <Choice label="How long" options={LENGTHS} value={length} onChange={setLength} />
              </Section>
              {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
            </>
          )}
        </View>
        {way === 'line' && report && (
          <View className="flex-1 gap-4">
            <Played key={`${report.seconds}`} report={report} />
          </View>
        )}
      </View>
    </Screen>
  );
}
