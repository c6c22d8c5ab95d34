/** A media server's control blocks, addressed in one go. */
import { useMemo } from 'react';
import { View } from 'react-native';
import { footprintOf } from '@taxiarch/core/rig/fixture';
import { formatAddress } from '@taxiarch/core/base/address';
import { addBlocks, gapForBlocks, readStart, type BulkRequest } from '@taxiarch/core/rig/patch';
import { ok, refuse, type Result } from '@taxiarch/core/base/result';
import type { Lamp } from '@taxiarch/core/show/records';
import { useRecordForm } from '@/forms/useRecordForm';
import { useLive } from '@/data/live';
import { useShow } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import { Button, Field, Notice, Pick, Screen, Section, Sentence, Text, count } from '@/ui';
import { newId, wholeFrom } from '@/data/numbers';
import { useTypes } from './types/choose';

interface Line {
  readonly typeId: string;
  readonly mode: string;
  /** How many, as typed */
  readonly count: string;
}

interface Form {
  readonly group: string;
  readonly start: string;
  readonly number: string;
  readonly lines: readonly Line[];
}

/** Most of one block at once. */
const MOST_BLOCKS = 1000;

/** As typed; nothing is none, undefined what is no such number. */
const howMany = (typed: string): number | undefined => {
  const number = typed.trim() === '' ? 0 : wholeFrom(typed);
  return number !== undefined && number >= 0 && number <= MOST_BLOCKS ? number : undefined;
};

/** The blocks of the show, and whether data is received on the universe of each. */
function BlocksNow() {
  const { patch } = useShow();
  const live = useLive();
  const blocks = patch
    .all()
    .filter(({ type, run }) => !run && type.kind === 'media')
    .sort((a, b) => a.lamp.number - b.lamp.number);
  const fed = new Set(
    live?.universes.flatMap(({ show, streams }) => (show !== null && streams.some(({ lost }) => !lost) ? [show] : [])),
  );
  if (blocks.length === 0) return null;
  return (
    <Section title="Blocks in the show">
      <View role="table" aria-label="Blocks in the show">
        <View role="row" className="flex-row gap-3 border-b border-line pb-1">
          {(['No.', 'Block', 'Address', 'Data'] as const).map((head, i) => (
            <Text key={head} kind="small" className={COLUMNS[i]!}>
              {head}
            </Text>
          ))}
        </View>
        {blocks.map(({ lamp, spans }) => {
          const data = !live ? '…' : spans.some(({ universe }) => fed.has(universe)) ? 'received' : 'none';
          return (
            <View key={lamp.id} role="row" className="min-h-10 flex-row items-center gap-3 border-b border-line">
              <Text kind="mono" className={COLUMNS[0]!}>
                {lamp.number}
              </Text>
              <Text numberOfLines={1} className={COLUMNS[1]!}>
                {lamp.name}
              </Text>
              <Text kind="mono" className={COLUMNS[2]!}>
                {spans[0] ? formatAddress(spans[0]) : 'no address'}
              </Text>
              <Text tone={data === 'none' ? 'warn' : 'text'} className={COLUMNS[3]!}>
                {data}
              </Text>
            </View>
          );
        })}
      </View>
    </Section>
  );
}

const COLUMNS = ['w-12', 'flex-1', 'w-20', 'w-20'] as const;

export function BlocksPage() {
  const show = useShow();
  const types = useTypes();
  const media = useMemo(() => types.filter(({ kind }) => kind === 'media'), [types]);
  const server = show.records.machine.find(({ kind }) => kind === 'media server');
  const highest = [...show.records.lamp, ...show.records.run].reduce((most, { number }) => Math.max(most, number), 0);
  const { form, set, text, clear } = useRecordForm<Form, Lamp>('blocks', undefined, () => ({
    group: server?.name ?? '',
    start: `${Math.max(0, ...show.patch.universes()) + 1}/1`,
    number: String(Math.floor(highest / 100) * 100 + 101),
    lines: [],
  }));
  const lines = useMemo(
    () =>
      media.map(
        (type) =>
          form.lines.find(({ typeId }) => typeId === type.id) ?? {
            typeId: type.id,
            mode: type.modes[0]!.name,
            count: '',
          },
      ),
    [media, form.lines],
  );
  const setLine = (line: Line) => set({ lines: lines.map((one) => (one.typeId === line.typeId ? line : one)) });
  const request = useMemo((): Result<BulkRequest> => {
    const start = readStart(form.start, show.records);
    if (!start.ok) return start;
    const numberFrom = wholeFrom(form.number);
    if (numberFrom === undefined || numberFrom < 1)
      return refuse('not-understood', 'The first number is a whole number from 1.');
    if (lines.some(({ count: typed }) => howMany(typed) === undefined))
      return refuse('not-understood', `How many of a block is a whole number from 0 to ${MOST_BLOCKS}.`);
    const blocks = lines
      .filter((line) => howMany(line.count)! > 0)
      .map((line) => {
        const type = media.find(({ id }) => id === line.typeId)!;
        return {
          type,
          mode: type.modes.find(({ name }) => name === line.mode)!,
          count: howMany(line.count)!,
          pattern: `${form.group} ${type.name.toLowerCase()} #`.trim(),
        };
      });
    return ok({ blocks, start: start.value, numberFrom, group: form.group.trim(), placeId: null });
  }, [show, form, lines, media]);
  const plan = useMemo(() => (request.ok ? addBlocks(show, request.value, newId) : request), [show, request]);
  const gap = useMemo(() => (request.ok ? gapForBlocks(show, request.value) : undefined), [show, request]);
  const total = lines.reduce((sum, line) => sum + (howMany(line.count) ?? 0), 0);
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
          <Field label="Server, also its group" {...text('group')} />
        </View>
        <View className="w-28">
          <Field label="Number from" mono {...text('number')} />
        </View>
      </View>
      <Field label="Begin at, as 14/1 or Art-Net 0.0.8/1" mono {...text('start')} />
      {lines.map((line) => {
        const type = media.find(({ id }) => id === line.typeId)!;
        return (
          <View key={line.typeId} className="gap-1 border-t border-line pt-2">
            <View className="flex-row items-center gap-2">
              <Text className="flex-1">
                {type.maker} {type.name}
              </Text>
              <View className="w-24">
                <Field
                  label={`How many ${type.name}`}
                  hideLabel
                  mono
                  inputMode="numeric"
                  placeholder="0"
                  value={line.count}
                  onChange={(typed) => setLine({ ...line, count: typed })}
                />
              </View>
            </View>
            <Pick
              label={`Mode of ${type.name}`}
              hideLabel
              options={type.modes.map((mode) => ({
                value: mode.name,
                label: `${mode.name}, ${count(footprintOf(mode), 'channel')}`,
              }))}
              value={line.mode}
              onChange={(mode) => setLine({ ...line, mode })}
            />
          </View>
        );
      })}
      <Section title="Preview">
        {gap && (
          <Notice
            state="look at"
            act={<Button label={`Begin at ${formatAddress(gap)}`} onPress={() => set({ start: formatAddress(gap) })} />}
          >
            Something lies there already. The next gap for all of them begins at {formatAddress(gap)}.
          </Notice>
        )}
        <PlanPreview plan={plan} act={`Address ${count(total, 'block')}`} onDone={clear} />
      </Section>
      <BlocksNow />
    </Screen>
  );
}
