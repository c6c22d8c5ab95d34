/** Every single failure by the light it costs, and what would take it away. */
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import type { MendsReply } from '@taxiarch/core/whole/contract';
import type { Plan } from '@taxiarch/core/show/edit';
import { ok } from '@taxiarch/core/base/result';
import { costText, type FailureRow, type WhatIfFrom } from '@taxiarch/core/truth/whatif';
import { mendsFor, useEvery } from '@/data/whatIf';
import { PlanPreview } from '@/forms/PlanPreview';
import { Button, Notice, Text, count } from '@/ui';

const MOST_ROWS = 100;

function Mends({ from, failure }: { from: WhatIfFrom; failure: FailureRow }) {
  const [reply, setReply] = useState<MendsReply>();
  const [trouble, setTrouble] = useState('');
  const [open, setOpen] = useState(-1);
  const ask = () => mendsFor(from, failure.key).then(setReply, (error: Error) => setTrouble(error.message));
  if (trouble !== '') return <Text tone="fault">{trouble}</Text>;
  if (!reply)
    return (
      <Button label={`What would save it? ${failure.what}`} short="What would save it?" onPress={() => void ask()} />
    );
  if (reply.mends.length === 0) return <Text kind="small">Nothing that the plan knows of.</Text>;
  return reply.mends.map(({ says, sentence, lines, changes }, i) => (
    <View key={says} className="gap-2">
      <Text>{says}</Text>
      {changes &&
        (open === i ? (
          <PlanPreview plan={ok({ sentence, lines, changes } as Plan)} act={sentence} onWritten={() => setOpen(-1)} />
        ) : (
          <Button label={`Look at it: ${sentence}`} short="Look at it" onPress={() => setOpen(i)} />
        ))}
    </View>
  ));
}

export function EveryFailure({ from }: { from: WhatIfFrom }) {
  const every = useEvery();
  const [open, setOpen] = useState('');
  const { reply, trouble } = every;
  const running = reply !== undefined && !reply.ended;
  return (
    <View className="gap-3">
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
      {running ? (
        <View className="flex-row items-center gap-2">
          <Text role="status" className="flex-1">
            {reply.of === 0 ? 'Beginning…' : `${reply.done} of ${reply.of} tried.`}
          </Text>
          <Button label="End it" onPress={every.cancel} />
        </View>
      ) : (
        <View className="flex-row flex-wrap gap-2">
          <Button label="Try every failure" look="main" onPress={() => every.begin(from, false)} />
          <Button label="And every two" onPress={() => every.begin(from, true)} />
        </View>
      )}
      {reply?.ended && trouble === '' && (
        <Text kind="lead">
          {reply.rows.length === 0
            ? 'No single failure costs any light.'
            : `${count(reply.rows.length, 'failure')} cost light; each was looked at for 30 s.`}
        </Text>
      )}
      {reply?.rows.slice(0, MOST_ROWS).map((row) => (
        <View key={row.key} className="gap-2 border-b border-line pb-2">
          <Pressable
            role="button"
            aria-expanded={open === row.key}
            aria-label={row.what}
            onPress={() => setOpen(open === row.key ? '' : row.key)}
            className="min-h-11 justify-center"
          >
            <Text kind="strong">{row.what}</Text>
            <Text kind="small" tone={row.dark > 0 ? 'fault' : undefined}>
              {costText(row)}
            </Text>
          </Pressable>
          {open === row.key && row.kind !== 'pair' && <Mends from={from} failure={row} />}
        </View>
      ))}
    </View>
  );
}
