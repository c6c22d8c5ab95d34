/** Walks: those that were begun, each with how it stands, and a new one. */
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { Walk } from '@taxiarch/core/show/records';
import { lastMarks, marksOf, stateOf, walkItems } from '@taxiarch/core/proving/walk';
import { useShow } from '@/data/show';
import { Button, Row, Screen, Sentence, Text, count, dayAndTime, PageShape } from '@/ui';
import { BeginWalk } from './BeginWalk';
import { WaitingMarks } from './WaitingMarks';

function WalkRow({ walk }: { walk: Walk }) {
  const { records, patch } = useShow();
  const last = lastMarks(marksOf(records, walk.id));
  const items = walkItems(walk, patch);
  const of = (state: string) => items.filter(({ key }) => stateOf(last.get(key)) === state).length;
  const [proved, failed, disputed] = ['proved', 'failed', 'disputed'].map(of) as [number, number, number];
  return (
    <Row href={{ pathname: '/prove/walks/[walk]', params: { walk: walk.id } }}>
      <View className="flex-1">
        <Text kind="strong">{walk.name}</Text>
        <Text kind="small">
          {walk.by}, {dayAndTime(walk.at)}
        </Text>
      </View>
      <View className="items-end">
        <Text kind="mono">
          {proved} of {items.length}
        </Text>
        <Text kind="small">marked proved</Text>
        {failed + disputed > 0 && (
          <Text kind="small" tone="fault">
            {[failed > 0 && `${failed} failed`, disputed > 0 && `${disputed} disputed`].filter(Boolean).join(', ')}
          </Text>
        )}
      </View>
    </Row>
  );
}

export function WalksPage() {
  const router = useRouter();
  const { records, loaded } = useShow();
  const [beginning, setBeginning] = useState(false);
  if (!loaded) return <PageShape />;
  if (beginning)
    return (
      <BeginWalk
        onLeave={() => setBeginning(false)}
        onBegun={(walk) => router.push({ pathname: '/prove/walks/[walk]', params: { walk } })}
      />
    );
  const walks = [...records.walk].sort((a, b) => b.at.localeCompare(a.at));
  return (
    <Screen
      sentence={
        <Sentence>
          {walks.length === 0
            ? 'Nobody has walked the rig yet: lamp by lamp, each looked at and marked.'
            : `${count(walks.length, 'walk')} so far.`}
        </Sentence>
      }
      acts={<Button label="Begin a walk" look="main" grow onPress={() => setBeginning(true)} />}
    >
      <WaitingMarks />
      {walks.length > 0 && (
        <View className="-mx-4">
          {walks.map((walk) => (
            <WalkRow key={walk.id} walk={walk} />
          ))}
        </View>
      )}
    </Screen>
  );
}
