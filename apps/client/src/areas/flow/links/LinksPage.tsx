/** Links from senders to visualisers, each with what its doctor says now. */
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { protocolName } from '@taxiarch/core/base/address';
import { rangeText } from '@taxiarch/core/network/flow';
import { arrivesSurely, doctor, type DoctorState } from '@taxiarch/core/truth/link';
import { useExchange } from '@/data/exchange';
import { useLive } from '@/data/live';
import { useShow } from '@/data/show';
import { Button, Row, Screen, Sentence, StateWord, Text, count } from '@/ui';

export function LinksPage() {
  const router = useRouter();
  const { records, loaded } = useShow();
  const live = useLive();
  const links = [...records.link].sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));
  const programs = useExchange(false).data?.citp?.peers;
  const looked = links.map((link) => ({ link, lines: live ? doctor(link, records, live, programs) : [] }));
  const has = (wanted: DoctorState) => looked.filter(({ lines }) => lines.some(({ state }) => state === wanted)).length;
  const well = looked.filter(({ lines }) => arrivesSurely(lines)).length;
  return (
    <Screen
      sentence={
        <Sentence>
          {!loaded
            ? 'Reading the show…'
            : links.length === 0
              ? 'No console is linked to a visualiser yet.'
              : [
                  `${well} of ${count(links.length, 'link')} said or seen to arrive.`,
                  has('must fix') > 0 && `${has('must fix')} to mend.`,
                  has('ask') > 0 && `${has('ask')} with open questions.`,
                ]
                  .filter(Boolean)
                  .join(' ')}
        </Sentence>
      }
      acts={
        <>
          <Button label="Compare patches" short="Compare" grow onPress={() => router.navigate('/flow/links/compare')} />
          <Button label="Add a link" look="main" grow onPress={() => router.navigate('/flow/links/new')} />
        </>
      }
    >
      <View className="-mx-4">
        {looked.map(({ link, lines }) => {
          const wrong = lines.filter(({ state }) => state === 'must fix');
          const asked = lines.filter(({ state }) => state === 'ask');
          return (
            <Row key={link.id} href={`/flow/links/${link.id}`}>
              <View className="flex-1">
                <Text numberOfLines={1}>{link.name}</Text>
                <Text kind="small" numberOfLines={1}>
                  {protocolName(link.protocol)} ·{' '}
                  {link.lines
                    .map((line) => `${rangeText(line)} as ${rangeText({ ...line, from: line.to })}`)
                    .join(', ')}
                </Text>
                {(wrong[0] ?? asked[0]) && (
                  <Text kind="small" tone={wrong[0] ? 'fault' : 'warn'} numberOfLines={2}>
                    {(wrong[0] ?? asked[0])!.says}
                  </Text>
                )}
              </View>
              <StateWord state={wrong.length > 0 ? 'must fix' : asked.length > 0 ? 'open' : 'fine'} />
            </Row>
          );
        })}
      </View>
    </Screen>
  );
}
