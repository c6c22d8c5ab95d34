/** A new walk: what it covers, in which order, one what at a time, and what each shows. */
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import type { CoveredRequest } from '@taxiarch/core/whole/contract';
import { WALK_ORDERS, WALK_PICTURES, type WalkOrder, type WalkPicture } from '@taxiarch/core/show/records';
import { placeFilter, usePreference } from '@/data/preferences';
import { rigSelection, useSelection, walkSelection } from '@/data/selection';
import { useShow } from '@/data/show';
import { beginWalk, useCovered } from '@/data/walks';
import { Button, Choice, Field, Notice, Pick, Screen, Section, Sentence, Text, count, dayOf } from '@/ui';
import { ORDER_WORDS, PICTURE_WORDS } from './words';

interface Cover {
  readonly value: string;
  readonly label: string;
  readonly covers: CoveredRequest['covers'];
}

/** All that a walk can cover, each under one word. */
function useCovers(chosen: readonly string[]): readonly Cover[] {
  const { records } = useShow();
  const plain = { id: '', part: '' };
  const ports = records.machine.flatMap((machine) =>
    machine.ports
      .filter(({ use }) => use === 'out')
      .map((port): Cover => {
        const part = String(port.number);
        return {
          value: `port ${machine.id} ${part}`,
          label: `${machine.name}, port ${part}: universe ${port.universe}`,
          covers: { kind: 'port', id: machine.id, part },
        };
      }),
  );
  return [
    { value: 'rig', label: 'The whole rig', covers: { kind: 'rig', ...plain } },
    ...(chosen.length > 0
      ? [
          {
            value: 'chosen',
            label: `The ${chosen.length} that are chosen`,
            covers: { kind: 'chosen' as const, ...plain },
          },
        ]
      : []),
    { value: 'failed', label: 'What failed last time', covers: { kind: 'failed', ...plain } },
    { value: 'changed', label: 'What changed since it was proved', covers: { kind: 'changed', ...plain } },
    ...[...records.place]
      .sort((a, b) => a.order - b.order)
      .map(({ id, name }): Cover => ({ value: id, label: name, covers: { kind: 'place', id, part: '' } })),
    ...ports,
    ...[...records.universe]
      .sort((a, b) => a.number - b.number)
      .map(({ number, name }): Cover => ({
        value: `universe ${number}`,
        label: `Universe ${number} ${name}`.trim(),
        covers: { kind: 'universe', id: String(number), part: '' },
      })),
  ];
}

const UNITS = [
  { value: 'lamp', label: 'A lamp' },
  { value: 'channel', label: 'A channel' },
] as const;

/** One of a list that is made by tapping, in the order of the taps. */
function PictureChip({ picture, at, onPress }: { picture: WalkPicture; at: number; onPress: () => void }) {
  const on = at >= 0;
  return (
    <Pressable
      role="checkbox"
      aria-checked={on}
      aria-label={PICTURE_WORDS[picture]}
      onPress={onPress}
      className={`h-11 flex-row items-center gap-2 rounded border px-3 ${on ? 'border-press bg-raised' : 'border-line bg-surface'}`}
    >
      {on && (
        <Text kind="mono" tone="press">
          {at + 1}
        </Text>
      )}
      <Text kind={on ? 'strong' : 'soft'}>{PICTURE_WORDS[picture]}</Text>
    </Pressable>
  );
}

export function BeginWalk({ onLeave, onBegun }: { onLeave: () => void; onBegun: (walk: string) => void }) {
  const place = usePreference(placeFilter);
  const walked = useSelection(walkSelection);
  const rig = useSelection(rigSelection);
  const chosen = rig.length > 0 ? rig : walked;
  const covers = useCovers(chosen);
  const [cover, setCover] = useState(place || 'rig');
  const [order, setOrder] = useState<WalkOrder>('number');
  const [unit, setUnit] = useState<(typeof UNITS)[number]['value']>('lamp');
  const [pictures, setPictures] = useState<readonly WalkPicture[]>(['full']);
  const [name, setName] = useState('');
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const its = covers.find(({ value }) => value === cover) ?? covers[0]!;
  const { data: covered, error } = useCovered({
    covers: its.covers,
    order,
    chosen: its.covers.kind === 'chosen' ? chosen : [],
  });
  const usual = `${its.label.split(':')[0]}, ${dayOf(Date.now())}`;
  const lamps = covered?.lampIds.length ?? 0;

  const begin = async () => {
    setTrouble('');
    setBusy(true);
    try {
      onBegun(
        await beginWalk({
          ...{ name: name.trim() || usual, covers: its.covers, order, unit },
          ...{ pictures, lampIds: covered?.lampIds ?? [] },
        }),
      );
    } catch (error) {
      setTrouble((error as Error).message);
    }
    setBusy(false);
  };

  return (
    <Screen
      sentence={
        <Sentence>
          {covered === undefined
            ? 'Looking which lamps these are…'
            : lamps === 0
              ? 'No lamp is among these.'
              : `${count(lamps, 'lamp')}${covered.metres === null ? '' : `, ${covered.metres} m on foot`}.`}
        </Sentence>
      }
      foot={(trouble || error) && <Notice state="must fix">{trouble || error!.message}</Notice>}
      acts={
        <>
          <Button label="Leave it" onPress={onLeave} />
          <Button
            label={`Walk ${count(lamps, 'lamp')}`}
            look="main"
            grow
            disabled={lamps === 0 || pictures.length === 0 || busy}
            onPress={() => void begin()}
          />
        </>
      }
    >
      <Section title="Which lamps">
        <Pick label="Which lamps" hideLabel options={covers} value={its.value} onChange={setCover} />
      </Section>
      <Section title="In which order">
        <Choice
          label="In which order"
          options={WALK_ORDERS.map((value) => ({ value, label: ORDER_WORDS[value] }))}
          value={order}
          onChange={setOrder}
        />
      </Section>
      <Section title="One at a time">
        <Choice label="One at a time" options={UNITS} value={unit} onChange={setUnit} />
        {unit === 'channel' && <Text kind="small">Each channel is lifted alone; the page says what it should do.</Text>}
      </Section>
      {unit === 'lamp' && (
        <Section title="What each shows, one after another">
          <View className="flex-row flex-wrap gap-2">
            {WALK_PICTURES.map((picture) => (
              <PictureChip
                key={picture}
                picture={picture}
                at={pictures.indexOf(picture)}
                onPress={() =>
                  setPictures(
                    pictures.includes(picture) ? pictures.filter((one) => one !== picture) : [...pictures, picture],
                  )
                }
              />
            ))}
          </View>
        </Section>
      )}
      <Section title="Name">
        <Field label="Name" hideLabel placeholder={usual} value={name} onChange={setName} />
      </Section>
    </Screen>
  );
}
