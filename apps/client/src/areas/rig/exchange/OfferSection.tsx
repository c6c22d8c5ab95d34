/** The rig as it is now, offered to the stations with a comment. */
import { useState } from 'react';
import type { StationsReply } from '@taxiarch/core/whole/contract';
import { commitRig } from '@/data/exchange';
import { Button, Field, Notice, Pick, Section, Text, clockTime, count } from '@/ui';
import { useAct } from '@/forms/useAct';

const ALL = '';

export function OfferSection({ stations }: { stations: StationsReply }) {
  const { act, trouble, busy } = useAct();
  const [comment, setComment] = useState('');
  const [told, setTold] = useState<{ says: string; not: readonly string[] }>();
  const [to, setTo] = useState(ALL);
  const last = stations.own.at(-1);
  const commit = () =>
    act(async () => {
      const { lamps, told: many, not } = await commitRig(comment, to === ALL ? [] : [to]);
      setTold({ says: `Offered ${count(lamps, 'lamp')}; ${count(many, 'station')} took note.`, not });
      setComment('');
    });
  return (
    <Section title="Offer the rig as it is now">
      <Field label="Comment" value={comment} onChange={setComment} placeholder="What changed, in a few words" />
      <Pick
        label="For"
        options={[
          { value: ALL, label: 'all stations' },
          ...stations.list.map(({ stationId, name }) => ({ value: stationId, label: name })),
        ]}
        value={to}
        onChange={setTo}
      />
      <Button label="Offer the rig" look="main" disabled={busy} onPress={() => void commit()} />
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
      {told && <Text role="status">{told.says}</Text>}
      {told?.not.map((why) => (
        <Text key={why} tone="fault">
          {why}
        </Text>
      ))}
      {last && (
        <Text kind="small">
          Last offered at {clockTime(last.at)}: {count(last.lamps, 'lamp')}, “{last.comment}”. Stations fetch it
          whenever they want, as it was then.
        </Text>
      )}
    </Section>
  );
}
