/** What an act would do, line by line, before it is written. */
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import type { Result } from '@taxiarch/core/base/result';
import { networkConsequences } from '@taxiarch/core/truth/check';
import { consequences } from '@taxiarch/core/rig/patch';
import type { Plan } from '@taxiarch/core/show/edit';
import { propose, useShow } from '@/data/show';
import { Button, Notice, StateWord, Text } from '@/ui';

/** Lines shown at once; the rest are counted. */
const MOST_LINES = 60;

interface Props {
  plan: Result<Plan>;
  /** What the button says: “Add 12 lamps” */
  act: string;
  /** Lines shown at once, where there is little room */
  most?: number;
  /** After it was written; where one goes from here, so not for who has gone somewhere else meanwhile. */
  onDone?: (() => void) | undefined;
  /** After it was written, wherever one is by then. */
  onWritten?: () => void;
  /** It is being written, or has been or was refused. */
  onWriting?: (writing: boolean) => void;
}

export function PlanPreview({ plan, act, most = MOST_LINES, onDone, onWritten, onWriting }: Props) {
  const show = useShow();
  const [trouble, setTrouble] = useState('');
  const [writing, setWriting] = useState(false);
  const brings = useMemo(
    () => (plan.ok ? [...consequences(show, plan.value).brings, ...networkConsequences(show.records, plan.value)] : []),
    [plan, show],
  );

  const write = async ({ sentence, changes }: Plan) => {
    const from = window.location.pathname;
    setTrouble('');
    setWriting(true);
    onWriting?.(true);
    try {
      await propose(sentence, changes);
      onWritten?.();
      if (window.location.pathname === from) onDone?.();
    } catch (error) {
      setTrouble((error as Error).message);
    }
    setWriting(false);
    onWriting?.(false);
  };

  if (!plan.ok) return <Text tone="warn">{plan.why}</Text>;
  const { lines } = plan.value;
  const goes = lines.filter(({ after }) => after === '').length;
  return (
    <View className="gap-3" role="region" aria-label="Preview">
      <Text kind="label" role="heading" aria-level={2}>
        What would be written
      </Text>
      <View>
        {lines.slice(0, most).map(({ subject, before, after }, i) => (
          <View key={i} className="min-h-8 flex-row items-center gap-2 border-b border-line py-1">
            <Text numberOfLines={1} className="flex-1">
              {subject}
            </Text>
            {before !== '' && <Text kind="monoSmall">{before}</Text>}
            {before !== '' && <Text kind="small">→</Text>}
            <Text kind={after === '' ? 'small' : 'mono'} tone={after === '' ? 'fault' : undefined}>
              {after === '' ? 'goes' : after}
            </Text>
          </View>
        ))}
        {lines.length > most && <Text kind="small">and {lines.length - most} more.</Text>}
      </View>
      {brings.length > 0 && (
        <View className="gap-1">
          <StateWord state="look at" />
          {brings.slice(0, 4).map((finding) => (
            <Text key={finding.sentence}>{finding.sentence}</Text>
          ))}
          {brings.length > 4 && <Text kind="small">and {brings.length - 4} more findings.</Text>}
        </View>
      )}
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
      <Button
        label={goes > 0 ? `${act}; ${goes} ${goes === 1 ? 'goes' : 'go'}` : act}
        look="main"
        disabled={writing || lines.length === 0}
        onPress={() => void write(plan.value)}
      />
    </View>
  );
}
