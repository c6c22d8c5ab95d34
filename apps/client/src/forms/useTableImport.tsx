/** A table chosen from this device, read, and previewed before anything is written. */
import { useMemo, useRef, useState, type ReactNode } from 'react';
import type { Result } from '@taxiarch/core/base/result';
import type { BadLine } from '@taxiarch/core/files/format';
import type { Plan } from '@taxiarch/core/show/edit';
import type { ShowRecords } from '@taxiarch/core/show/records';
import { useShow } from '@/data/show';
import { Notice, Section } from '@/ui';
import { PlanPreview } from './PlanPreview';

type Reader = (text: string, records: ShowRecords) => Result<{ plan: Result<Plan>; bad: readonly BadLine[] }>;

/** `choose` opens the device's files; `shown` is what came of it, to be put on the screen. */
export function useTableImport(label: string, reader: Reader): { choose: () => void; shown: ReactNode } {
  const { records } = useShow();
  const input = useRef<HTMLInputElement>(null);
  const [text, setText] = useState<string>();
  const read = useMemo(() => (text === undefined ? undefined : reader(text, records)), [text, records, reader]);
  return {
    choose: () => input.current?.click(),
    shown: (
      <>
        <input
          ref={input}
          type="file"
          accept=".csv"
          aria-label={label}
          hidden
          onChange={(event) => {
            void event.target.files?.[0]?.text().then(setText);
            // The same file, mended, can be chosen again.
            event.target.value = '';
          }}
        />
        {read && (
          <Section title="From the file">
            {read.ok &&
              read.value.bad.map(({ line, why }) => (
                <Notice key={line} state="must fix">
                  Line {line}: {why}
                </Notice>
              ))}
            <PlanPreview
              plan={read.ok ? read.value.plan : read}
              act="Import the table"
              onDone={() => setText(undefined)}
            />
          </Section>
        )}
      </>
    ),
  };
}
