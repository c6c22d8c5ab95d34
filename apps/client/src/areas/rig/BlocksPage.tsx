/** A media server's control blocks, addressed in one go. */
import Minus from 'lucide-react-native/icons/minus';
import Plus from 'lucide-react-native/icons/plus';
import { useMemo } from 'react';
import { View } from 'react-native';
import { footprintOf } from '@taxiarch/core/fixture';
import { addBlocks, readStart, type Plan } from '@taxiarch/core/patch';
import type { Read } from '@taxiarch/core/address';
import { useDraft } from '@/data/form';
import { useShow } from '@/data/show';
import { Button, Field, Pick, Screen, Section, Sentence, Text, count, PlanPreview } from '@/ui';
import { newId, wholeFrom } from '@/data/numbers';
import { useTypes } from './types/choose';

interface Line {
  readonly typeId: string;
  readonly mode: string;
  readonly count: number;
}

interface Form {
  readonly group: string;
  readonly start: string;
  readonly number: string;
  readonly lines: readonly Line[];
}

export function BlocksPage() {
  const show = useShow();
  const types = useTypes();
  const media = useMemo(() => types.filter(({ kind }) => kind === 'media'), [types]);
  const [form, setForm, clear] = useDraft<Form>('blocks', {
    group: 'Porthole',
    start: '14/1',
    number: '901',
    lines: [],
  });
  const lines = useMemo(
    () =>
      media.map(
        (type) =>
          form.lines.find(({ typeId }) => typeId === type.id) ?? {
            typeId: type.id,
            mode: type.modes[0]!.name,
            count: 0,
          },
      ),
    [media, form.lines],
  );
  const setLine = (line: Line) =>
    setForm({ ...form, lines: lines.map((one) => (one.typeId === line.typeId ? line : one)) });
  const plan = useMemo((): Read<Plan> => {
    const start = readStart(form.start, show.records);
    if (!start.ok) return start;
    const blocks = lines
      .filter((line) => line.count > 0)
      .map((line) => {
        const type = media.find(({ id }) => id === line.typeId)!;
        return {
          type,
          mode: type.modes.find(({ name }) => name === line.mode)!,
          count: line.count,
          pattern: `${form.group} ${type.name.toLowerCase()} #`.trim(),
        };
      });
    return addBlocks(
      show,
      {
        blocks,
        start: start.value,
        numberFrom: wholeFrom(form.number) ?? 901,
        group: form.group.trim(),
        placeId: null,
      },
      newId,
    );
  }, [show, form, lines, media]);
  const total = lines.reduce((sum, line) => sum + line.count, 0);
  return (
    <Screen
      sentence={
        <Sentence>
          {total === 0
            ? 'Choose the blocks of a media server.'
            : `${count(total, 'block')} of ${form.group || 'a media server'}.`}
        </Sentence>
      }
    >
      <View className="flex-row gap-2">
        <View className="flex-1">
          <Field label="Server, also its group" value={form.group} onChange={(group) => setForm({ ...form, group })} />
        </View>
        <View className="w-28">
          <Field label="Number from" mono value={form.number} onChange={(number) => setForm({ ...form, number })} />
        </View>
      </View>
      <Field
        label="Begin at, as 14/1 or Art-Net 0.0.8/1"
        mono
        value={form.start}
        onChange={(start) => setForm({ ...form, start })}
      />
      {lines.map((line) => {
        const type = media.find(({ id }) => id === line.typeId)!;
        return (
          <View key={line.typeId} className="gap-1 border-t border-line pt-2">
            <View className="flex-row items-center gap-2">
              <Text className="flex-1">
                {type.maker} {type.name}
              </Text>
              <Button
                label={`One ${type.name} less`}
                icon={Minus}
                iconOnly
                disabled={line.count === 0}
                onPress={() => setLine({ ...line, count: line.count - 1 })}
              />
              <Text kind="mono" className="w-8 text-center">
                {line.count}
              </Text>
              <Button
                label={`One ${type.name} more`}
                icon={Plus}
                iconOnly
                onPress={() => setLine({ ...line, count: line.count + 1 })}
              />
            </View>
            <Pick
              label={`Mode of ${type.name}`}
              hideLabel
              options={type.modes.map((mode) => ({
                value: mode.name,
                label: `${mode.name}, ${footprintOf(mode)} channels`,
              }))}
              value={line.mode}
              onChange={(mode) => setLine({ ...line, mode })}
            />
          </View>
        );
      })}
      <Section title="Preview">
        <PlanPreview plan={plan} act={`Address ${count(total, 'block')}`} onDone={clear} />
      </Section>
    </Screen>
  );
}
