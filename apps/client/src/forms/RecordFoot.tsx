/** The foot of every form of a record: what would be written, and that somebody else came between. */
import { useState } from 'react';
import type { Plan } from '@taxiarch/core/show/edit';
import type { Row } from '@taxiarch/core/show/records';
import type { Result } from '@taxiarch/core/base/result';
import { Button, Notice, Section } from '@/ui';
import { PlanPreview } from './PlanPreview';
import type { RecordForm } from './useRecordForm';

interface Props<F, R extends Row> {
  of: Pick<RecordForm<F, R>, 'base' | 'typed' | 'stale' | 'clear'>;
  plan: Result<Plan>;
  /** What the button says: “Change the route” */
  act: string;
  /** After it was written; what was typed is forgotten by then. */
  onDone?: () => void;
}

export function RecordFoot<F, R extends Row>({ of: { base, typed, stale, clear }, plan, act, onDone }: Props<F, R>) {
  const [writing, setWriting] = useState(false);
  if (base && !typed) return null;
  return (
    <Section title="Preview">
      {stale && !writing ? (
        <Notice state="must fix" act={<Button label="Show it as it is now" onPress={clear} />}>
          Somebody else has changed this since you began, so what you typed would undo their work.
        </Notice>
      ) : (
        <PlanPreview plan={plan} act={act} onWriting={setWriting} onWritten={clear} onDone={onDone} />
      )}
      {typed && !stale && <Button label="Leave as it was" look="bare" onPress={clear} />}
    </Section>
  );
}
