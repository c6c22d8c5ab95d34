/** What the plan puts on a machine's cable, with the sum worked out. */
import { useMemo } from 'react';
import { linkLoad } from '@taxiarch/core/truth/check';
import type { Machine } from '@taxiarch/core/show/records';
import { useShow } from '@/data/show';
import { Section, Text } from '@/ui';

export function LinkLoad({ machine }: { machine: Machine }) {
  const { records } = useShow();
  const load = useMemo(() => linkLoad(records, machine), [records, machine]);
  if (!load) return null;
  return (
    <Section title="Its link, as planned">
      <Text>{load.sum}</Text>
      {load.terms.map((term) => (
        <Text key={term} kind="monoSmall">
          {term}
        </Text>
      ))}
    </Section>
  );
}
