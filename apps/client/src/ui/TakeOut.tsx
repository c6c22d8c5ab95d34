/** Takes a record out of the plan, in two steps: asked for, then previewed and written. */
import { useState } from 'react';
import { removed } from '@taxiarch/core/patch';
import type { AnyRecord, Kind } from '@taxiarch/core/show';
import { Button } from './Button';
import { PlanPreview } from './PlanPreview';

interface Props {
  kind: Kind;
  record: AnyRecord;
  /** What it is, with its name: “the route Over” */
  what: string;
  onDone: () => void;
}

export function TakeOut({ kind, record, what, onDone }: Props) {
  const [asked, setAsked] = useState(false);
  if (!asked) return <Button label="Take it out of the plan" onPress={() => setAsked(true)} />;
  return (
    <PlanPreview
      plan={{
        ok: true,
        value: {
          sentence: `Took ${what} out of the plan`,
          changes: [removed(kind, record)],
          lines: [{ subject: what, before: 'planned', after: '' }],
        },
      }}
      act="Take it out"
      onDone={onDone}
    />
  );
}
