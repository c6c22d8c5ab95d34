/** Every part of the design system, in either theme; only there while Taxiarch is worked on. */
import Wrench from 'lucide-react-native/icons/wrench';
import { useState } from 'react';
import { View } from 'react-native';
import {
  Button,
  Check,
  Chips,
  Choice,
  Empty,
  Field,
  Notice,
  Opened,
  PennantFlag,
  Pick,
  Row,
  STATE_NAMES,
  Screen,
  Section,
  Sentence,
  SentenceLink,
  Slider,
  StateWord,
  Text,
  pinTheme,
  useThemeChoice,
} from '@/ui';

const THEMES = [
  { value: 'backstage', label: 'Backstage' },
  { value: 'daylight', label: 'Daylight' },
] as const;
const CHIPS = [
  { label: 'Here', href: '/parts', icon: Wrench },
  { label: 'Elsewhere', href: '/rig', icon: Wrench },
] as const;
const KINDS = ['lead', 'strong', 'body', 'soft', 'label', 'small', 'mono', 'monoSmall'] as const;
const CUTS = ['swallow', 'notch', 'square', 'triangle'] as const;
const FILLS = ['plain', 'dots', 'bars', 'chevrons'] as const;

export function PartsPage() {
  const theme = useThemeChoice();
  const [typed, setTyped] = useState('typed');
  const [level, setLevel] = useState(128);
  const [on, setOn] = useState(true);
  const [picked, setPicked] = useState('a');
  const options = [
    { value: 'a', label: 'The first' },
    { value: 'b', label: 'The other' },
  ];
  return (
    <Screen
      sentence={
        <Sentence>
          Every part, and a <SentenceLink href="/parts">number that leads on</SentenceLink>.
        </Sentence>
      }
      acts={<Button label="An act under the thumb" look="main" grow onPress={() => undefined} />}
    >
      <Choice
        label="Theme"
        options={THEMES}
        value={theme === 'daylight' ? 'daylight' : 'backstage'}
        onChange={pinTheme}
      />
      <Section title="Text">
        {KINDS.map((kind) => (
          <Text key={kind} kind={kind}>
            {kind}: 402 lamps, 8/480, 127.0.0.31
          </Text>
        ))}
      </Section>
      <Section title="Buttons">
        <View className="flex-row flex-wrap gap-2">
          <Button label="Main" look="main" onPress={() => undefined} />
          <Button label="Plain" icon={Wrench} onPress={() => undefined} />
          <Button label="Hot" look="hot" onPress={() => undefined} />
          <Button label="Bare" look="bare" onPress={() => undefined} />
          <Button label="Not now" disabled onPress={() => undefined} />
          <Button label="An icon alone" icon={Wrench} iconOnly onPress={() => undefined} />
        </View>
      </Section>
      <Section title="Fields">
        <Field label="Text" value={typed} onChange={setTyped} />
        <Field label="Number, wrong" mono value="513" fault="Channels run from 1 to 512." onChange={() => undefined} />
        <Pick label="One of many" options={options} value={picked} onChange={setPicked} />
        <Choice label="One of a few" options={options} value={picked} onChange={setPicked} />
        <Check label="Yes or no" on={on} onChange={setOn} />
        <Slider label="A level" value={level} max={255} onChange={setLevel} />
      </Section>
      <Section title="States">
        <View className="flex-row flex-wrap gap-4">
          {STATE_NAMES.map((word) => (
            <StateWord key={word} state={word} />
          ))}
        </View>
        <Notice state="must fix">Lamp 101 and lamp 103 overlap from 2/11.</Notice>
        <Notice state="look at">Nobody is planned to send universe 12.</Notice>
      </Section>
      <Section title="Flags">
        <View className="flex-row flex-wrap gap-3">
          {CUTS.flatMap((cut) =>
            FILLS.map((fill) => <PennantFlag key={cut + fill} pennant={{ letter: 'B', cut, fill }} size={24} />),
          )}
        </View>
      </Section>
      <Section title="Lists">
        <Row href="/rig">
          <Text className="flex-1">A row</Text>
          <StateWord state="steady" />
        </Row>
        <Row href="/rig" chosen>
          <Text className="flex-1">A chosen row</Text>
        </Row>
        <Chips label="Ways on" chips={CHIPS} here="/parts" />
      </Section>
      <Section title="What opens, and what is not there">
        <Opened>
          <Text>It scrolls into sight when it opens.</Text>
        </Opened>
        <View className="h-32">
          <Empty>What would stand here, and the first act.</Empty>
        </View>
      </Section>
    </Screen>
  );
}
