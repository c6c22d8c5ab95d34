/** Test pictures: on ports, universes, lamps and groups; hot, and given back like anything that is taken. */
import { useState } from 'react';
import { View } from 'react-native';
import { MOST_PICTURED, TEST_PICTURES, type TestPicture } from '@taxiarch/core/rig/picture';
import { universesOfPort } from '@taxiarch/core/network/machine';
import { readUniverses } from '@taxiarch/core/base/address';
import { endPicture, showPicture, tunePicture, usePictures } from '@/data/pictures';
import { placeFilter, usePreference } from '@/data/preferences';
import { rigSelection, useSelection, walkSelection } from '@/data/selection';
import { useShow } from '@/data/show';
import { AskHot } from '@/areas/prove/roll/AskHot';
import { useLampActs } from '@/areas/prove/roll/useLampActs';
import { Button, Field, Pick, Screen, Section, Sentence, Slider, Text, count, PageShape } from '@/ui';

const PICTURE_WORDS: Readonly<Record<TestPicture, string>> = {
  level: 'Level',
  ramp: 'Ramp',
  chase: 'Chase',
  'every other': 'Every other',
  'one at a time': 'One at a time',
  'colour bars': 'Colour bars',
  number: 'Universe number, blinked',
  'pan and tilt': 'Pan and tilt in a square',
  random: 'Random at full rate',
};
const ABOUT: Readonly<Partial<Record<TestPicture, string>>> = {
  random: 'Every slot another value in every packet: the hardest for cables and terminators.',
  number: 'Digit by digit; nought blinks ten times.',
  chase: 'Every fourth, one on at each step.',
};

interface Target {
  readonly value: string;
  readonly label: string;
  readonly lampIds: readonly string[];
  readonly universes: readonly number[];
}

/** What is chosen, places, groups, ports, universes. */
function useTargets(typed: string): readonly Target[] {
  const { records, patch } = useShow();
  const rig = useSelection(rigSelection);
  const walk = useSelection(walkSelection);
  const chosen = rig.length > 0 ? rig : walk;
  const all = patch.all().map(({ lamp }) => lamp);
  const lampsOf = (label: string, value: string, some: typeof all): Target => ({
    ...{ value, label: `${label}: ${count(some.length, 'lamp')}`, lampIds: some.map(({ id }) => id), universes: [] },
  });
  const groups = [...new Set(records.lamp.flatMap((one) => one.groups))].sort();
  const typedUniverses = readUniverses(typed);
  return [
    ...(chosen.length > 0
      ? [
          lampsOf(
            'What is chosen',
            'chosen',
            all.filter(({ id }) => chosen.includes(id)),
          ),
        ]
      : []),
    ...[...records.place]
      .sort((a, b) => a.order - b.order)
      .map(({ id, name }) =>
        lampsOf(
          name,
          id,
          all.filter(({ placeId }) => placeId === id),
        ),
      ),
    ...groups.map((name) =>
      lampsOf(
        `Group ${name}`,
        `group ${name}`,
        all.filter((one) => 'groups' in one && one.groups.includes(name)),
      ),
    ),
    ...(typedUniverses.ok && typed.trim() !== ''
      ? [{ value: 'typed', label: `Universes ${typed.trim()}`, lampIds: [], universes: typedUniverses.value }]
      : []),
    ...records.machine.flatMap((machine) =>
      machine.ports
        .filter(({ use }) => use === 'out')
        .map(({ number }) => ({
          value: `${machine.id} ${number}`,
          label: `${machine.name}, port ${number}: whole universe ${universesOfPort(records, machine.id, number).join()}`,
          lampIds: [],
          universes: universesOfPort(records, machine.id, number),
        })),
    ),
    ...[...records.universe]
      .sort((a, b) => a.number - b.number)
      .map(({ number, name }) => ({
        value: `universe ${number}`,
        label: `Universe ${number} ${name}, whole`,
        lampIds: [],
        universes: [number],
      })),
  ].filter(({ lampIds, universes }) => lampIds.length + universes.length > 0);
}

const MOST_SPEED = 44;
/** Of the slider’s hundred, so that slow speeds are the finer. */
const speedOf = (at: number): number => Math.round(((at / 100) ** 2 * MOST_SPEED + Number.EPSILON) * 10) / 10;
const atOf = (speed: number): number => Math.round(Math.sqrt(speed / MOST_SPEED) * 100);

export function PicturesPage() {
  const { loaded } = useShow();
  const place = usePreference(placeFilter);
  const [typed, setTyped] = useState('');
  const targets = useTargets(typed);
  const [target, setTarget] = useState('');
  const [picture, setPicture] = useState<TestPicture>('level');
  const [speed, setSpeed] = useState(1);
  const [level, setLevel] = useState(1);
  const { own, others } = usePictures();
  const acts = useLampActs();
  if (!loaded) return <PageShape />;
  const its =
    targets.find(({ value }) => value === (typed.trim() !== '' && target === '' ? 'typed' : target || place)) ??
    targets[0];
  const show = () =>
    acts.act(async () => {
      if (!its) return;
      await showPicture({ picture, lampIds: its.lampIds, universes: its.universes, speed, level });
    });
  const tune = (toSpeed: number, toLevel: number) => {
    setSpeed(toSpeed);
    setLevel(toLevel);
    if (own) void tunePicture(toSpeed, toLevel).catch(() => undefined);
  };
  return (
    <Screen
      sentence={
        <View className="gap-1">
          <Sentence>
            {own
              ? `${PICTURE_WORDS[own.says as TestPicture] ?? own.says} on ${count(own.universes, 'universe')}.`
              : 'Choose what to light, and by which picture.'}
          </Sentence>
          {own && own.steps > 1 && (
            <Text kind="monoSmall">
              Step {own.step + 1} of {own.steps}
            </Text>
          )}
          {others.map(({ by, says, holder }) => (
            <Text key={holder} kind="small">
              {by} shows {says} elsewhere.
            </Text>
          ))}
        </View>
      }
      foot={
        acts.asking || acts.trouble !== '' ? (
          <AskHot acts={acts} act="Make hot and show it">
            Taxiarch is safe and lights nothing. Once hot, the chosen lamps light and may move. Look that nobody is in
            their way.
          </AskHot>
        ) : (
          <>
            <Slider
              label="Level"
              value={Math.round(level * 100)}
              max={100}
              reads={`${Math.round(level * 100)} %`}
              onChange={(value) => tune(speed, value / 100)}
            />
            <Slider
              label="Speed"
              value={atOf(speed)}
              max={100}
              reads={`${speed} steps a second`}
              onChange={(value) => tune(speedOf(value), level)}
            />
          </>
        )
      }
      acts={
        <>
          {own && (
            <Button
              label="End the picture"
              short="End"
              onPress={() => acts.act(async () => void (await endPicture()))}
            />
          )}
          <Button
            label={own ? 'Show this instead' : 'Show it'}
            look="main"
            grow
            disabled={!its || acts.working || its.universes.length > MOST_PICTURED}
            onPress={show}
          />
        </>
      }
    >
      <Section title="On what">
        <Pick label="On what" hideLabel options={targets} value={its?.value ?? ''} onChange={setTarget} />
        <Field
          label={`Or whole universes, at most ${MOST_PICTURED}`}
          mono
          placeholder="1-8, 12"
          value={typed}
          onChange={(text) => {
            setTyped(text);
            setTarget('');
          }}
        />
      </Section>
      <Section title="Which picture">
        <Pick
          label="Which picture"
          hideLabel
          options={TEST_PICTURES.map((value) => ({ value, label: PICTURE_WORDS[value] }))}
          value={picture}
          onChange={(value) => setPicture(value as TestPicture)}
        />
        {ABOUT[picture] && <Text kind="small">{ABOUT[picture]}</Text>}
      </Section>
    </Screen>
  );
}
