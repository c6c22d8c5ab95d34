/** Marks that are on this phone only; those that are on their way are not worth a word. */
import { useEffect, useState } from 'react';
import { markQueue, useWaitingMarks } from '@/data/markQueue';
import { Button, Notice, Text, count } from '@/ui';

/** What has not gone out by then waits. */
const LATE_MS = 1500;

export function WaitingMarks() {
  const waiting = useWaitingMarks();
  const [late, setLate] = useState(false);
  const some = waiting.length > 0;
  useEffect(() => {
    const timer = setTimeout(() => setLate(some), some ? LATE_MS : 0);
    return () => clearTimeout(timer);
  }, [some]);
  const refused = waiting.find((one) => one.refused !== '');
  if (refused)
    return (
      <Notice state="must fix" act={<Button label="Send them again" onPress={() => void markQueue().retry()} />}>
        {`${count(waiting.length, 'mark')} could not be written: ${refused.refused} They stay on this phone.`}
      </Notice>
    );
  if (!some || !late) return null;
  return (
    <Text tone="warn" role="status">
      {count(waiting.length, 'mark')} wait on this phone until the server takes them.
    </Text>
  );
}
