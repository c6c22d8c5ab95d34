/** Matching by eye: lamps light one by one, and a person taps which it was. */
import { useState } from 'react';
import type { EyeReply, EyeSession } from '@taxiarch/core/proving/eye';
import { useEye } from '@/data/eye';
import { PageShape } from '@/ui';
import { BeginEye } from './BeginEye';
import { EndedEye } from './EndedEye';
import { RunningEye } from './RunningEye';

export function EyePage() {
  const eye = useEye();
  const [ended, setEnded] = useState<{ readonly reply: EyeReply; readonly how: EyeSession['how'] }>();
  if (!eye) return <PageShape />;
  if (eye.running)
    return <RunningEye eye={eye} session={eye.running} onEnded={(reply, how) => setEnded({ reply, how })} />;
  if (ended) return <EndedEye {...ended} onClose={() => setEnded(undefined)} />;
  return <BeginEye />;
}
