/** Universes added to the show, one or a range of them. */
import { useLocalSearchParams } from 'expo-router';
import { useMemo } from 'react';
import { object } from 'yup';
import { formatUniverses, readUniverses, readWireToken } from '@taxiarch/core/base/address';
import type { Plan } from '@taxiarch/core/show/edit';
import { addUniverses } from '@taxiarch/core/network/flow';
import type { ShowRecords, Universe } from '@taxiarch/core/show/records';
import type { Result } from '@taxiarch/core/base/result';
import { newId } from '@/data/numbers';
import { useShow } from '@/data/show';
import { RecordFoot } from '@/forms/RecordFoot';
import { readBy } from '@/forms/rules';
import { useRecordForm } from '@/forms/useRecordForm';
import { WireNumber, readWire, wireFormOf, type WireForm } from '@/forms/WireNumber';
import { useLeaveFor, Field, Screen, Sentence } from '@/ui';

interface Form extends WireForm {
  readonly universes: string;
  readonly pattern: string;
}

/** The next universe that is free in the show and, by sACN, on the wire. */
function nextFree({ universe }: ShowRecords): { number: number; wire: number } {
  const number = Math.max(0, ...universe.map((one) => one.number)) + 1;
  const sacn = universe.filter(({ protocol }) => protocol === 'sacn').map(({ wire }) => wire);
  return { number, wire: sacn.includes(number) ? Math.max(0, ...sacn) + 1 : number };
}

function planOf(form: Form, records: ShowRecords): Result<Plan> {
  const numbers = readUniverses(form.universes);
  if (!numbers.ok) return numbers;
  const wire = readWire(form);
  if (!wire.ok) return wire;
  return addUniverses(
    records,
    { numbers: numbers.value, protocol: form.protocol, wire: wire.value, pattern: form.pattern, merge: 'htp' },
    newId,
  );
}

const RULES = object({ universes: readBy(readUniverses) });

export function AddUniverses() {
  const leaveFor = useLeaveFor();
  const { universes: asked, wire: token = '' } = useLocalSearchParams<{ universes?: string; wire?: string }>();
  const { records } = useShow();
  const heard = readWireToken(token);
  const editing = useRecordForm<Form, Universe>(
    `universes ${asked ?? token}`,
    undefined,
    () => {
      const free = nextFree(records);
      const first = asked === undefined ? free.number : (readNumbers(asked)[0] ?? free.number);
      return {
        universes: asked ?? String(free.number),
        pattern: '',
        ...(heard.ok
          ? wireFormOf(heard.value.protocol, heard.value.number)
          : wireFormOf('sacn', asked === undefined ? free.wire : first)),
      };
    },
    RULES,
  );
  const { form, set, text, faults } = editing;
  const plan = useMemo(() => planOf(form, records), [form, records]);
  const numbers = readNumbers(form.universes);
  const many = numbers.length > 1;
  return (
    <Screen
      sentence={
        <Sentence>
          {numbers.length === 0
            ? 'Add universes.'
            : `Add ${many ? 'universes' : 'universe'} ${formatUniverses(numbers)}.`}
        </Sentence>
      }
    >
      <Field
        label="Which, as 5 or 1-8"
        mono
        value={form.universes}
        fault={faults.universes}
        onChange={(universes) => {
          const [first] = readNumbers(universes);
          // The number on the wire goes along as long as nobody has set another one.
          const along = first !== undefined && form.protocol === 'sacn' && form.wire === String(numbers[0]);
          set({ universes, ...(along && { wire: String(first) }) });
        }}
      />
      <Field label={many ? 'Name, # is the number' : 'Name'} {...text('pattern')} />
      <WireNumber form={form} set={set} label={many ? 'Number of the first on the wire' : 'Number on the wire'} />
      <RecordFoot
        of={editing}
        plan={plan}
        act={`Add ${many ? `${numbers.length} universes` : 'the universe'}`}
        onDone={() => leaveFor(many ? '/rig/universes' : `/rig/universes/${numbers[0]}?view=way`)}
      />
    </Screen>
  );
}

const readNumbers = (text: string): readonly number[] => {
  const read = readUniverses(text);
  return read.ok ? read.value : [];
};
