/** Deletes something from the plan, in two steps: asked for, then previewed and written. */
import { useState } from 'react';
import type { Plan, ProposedChange } from '@taxiarch/core/show/edit';
import { ok, type Result } from '@taxiarch/core/base/result';
import { Button, Opened } from '@/ui';
import { PlanPreview } from './PlanPreview';

interface DeletePlanProps {
  /** What it is, with its name: “the route Over” */
  what: string;
  /** Asked for when the person asks */
  plan: () => Result<Plan>;
  onDone: () => void;
}

/** Where more goes or follows than one record. */
export function DeletePlan({ what, plan, onDone }: DeletePlanProps) {
  const [asked, setAsked] = useState(false);
  if (!asked) return <Button label={`Delete ${what}`} onPress={() => setAsked(true)} />;
  return (
    <Opened>
      <PlanPreview plan={plan()} act="Delete it" onDone={onDone} />
      <Button label="Keep it" look="bare" onPress={() => setAsked(false)} />
    </Opened>
  );
}

interface Props {
  what: string;
  change: ProposedChange;
  onDone: () => void;
}

export const Delete = ({ what, change, onDone }: Props) => (
  <DeletePlan
    what={what}
    plan={() =>
      ok({ sentence: `Deleted ${what}`, changes: [change], lines: [{ subject: what, before: 'planned', after: '' }] })
    }
    onDone={onDone}
  />
);
