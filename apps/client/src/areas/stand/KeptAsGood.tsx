/** Kept as good: how all stood when somebody said so, and what stands otherwise since then, and by whose edits. */
import { useState } from 'react';
import { View } from 'react-native';
import { added } from '@taxiarch/core/show/edit';
import { changedSince, lastGood, statesNow } from '@taxiarch/core/truth/known';
import { useLive } from '@/data/live';
import { useMachines } from '@/data/machines';
import { newId } from '@/data/numbers';
import { whoIsHere } from '@/data/person';
import { propose, useHistory, useShow } from '@/data/show';
import { Button, Notice, Section, Text, count, dayAndTime } from '@/ui';

const MOST_CHANGES = 30;

export function KeptAsGood() {
  const live = useLive();
  const entries = useMachines();
  const { records } = useShow();
  const history = useHistory();
  const [trouble, setTrouble] = useState('');
  const good = lastGood(records.good);
  const now = live ? statesNow(live.universes, entries) : [];
  const changes = good && live ? changedSince(good, now) : [];
  const edits = good ? (history?.edits.filter(({ seq }) => seq > good.rev) ?? []) : [];
  const authors = [...new Set(edits.map(({ author }) => author))];
  const keep = async () => {
    try {
      const by = await whoIsHere();
      const at = new Date().toISOString();
      await propose('Kept how all stands as good', [added('good', { id: newId(), rev: 0, at, by, states: now })]);
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  return (
    <Section title="Kept as good">
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
      {good ? (
        <Text>
          {good.by} kept it on {dayAndTime(good.at)}.{' '}
          {changes.length === 0
            ? 'Every universe and machine stands as then.'
            : `${count(changes.length, 'thing')} ${changes.length === 1 ? 'stands' : 'stand'} otherwise:`}
        </Text>
      ) : (
        <Text kind="soft">When all stands as it should, keep it: from then on what changed is told here.</Text>
      )}
      <View role="list" aria-label="Changed since it was kept">
        {changes.slice(0, MOST_CHANGES).map(({ name, before, now: state }) => (
          <View key={name} role="listitem" className="flex-row gap-3 border-b border-line py-2">
            <Text className="flex-1">{name}</Text>
            <Text kind="small">
              {before} → {state}
            </Text>
          </View>
        ))}
      </View>
      {changes.length > MOST_CHANGES && <Text kind="small">and {changes.length - MOST_CHANGES} more</Text>}
      {edits.length > 0 && (
        <Text kind="small">
          {edits.length === history?.edits.length ? `${edits.length} edits or more` : count(edits.length, 'edit')} since
          then, by {authors.join(' and ')}: {edits[0]!.sentence}
          {edits.length > 1 ? ', and others' : ''}.
        </Text>
      )}
      <View className="flex-row">
        <Button label="Keep this as good" disabled={!live} onPress={() => void keep()} />
      </View>
    </Section>
  );
}
