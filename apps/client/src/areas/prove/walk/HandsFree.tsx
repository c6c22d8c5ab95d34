/** How to walk without hands, and how the lamp in hand is shown. */
import { View } from 'react-native';
import { usePreference, walkKeys, walkSpeaks } from '@/data/preferences';
import { Button, Check, Choice, Section, Slider, Text } from '@/ui';
import { KEY_ACTS, readKeys, type HandsFreeNow, type KeyAct } from './useHandsFree';
import type { Walking } from './useWalking';

const EVERY = [
  { value: '0', label: 'By hand' },
  { value: '3', label: '3 s' },
  { value: '5', label: '5 s' },
  { value: '10', label: '10 s' },
] as const;
const KEY_WORDS: Readonly<Record<KeyAct, string>> = {
  proved: 'Proved',
  failed: 'Failed',
  skipped: 'Skip',
  back: 'Back',
};
const MOST_SPEED = 8;

export function HandsFree({ walking, handsFree }: { walking: Walking; handsFree: HandsFreeNow }) {
  const keys = readKeys(usePreference(walkKeys));
  const speaks = usePreference(walkSpeaks) === 'yes';
  const every = String(handsFree.every) as (typeof EVERY)[number]['value'];
  return (
    <>
      <Section title="How it is lit">
        <Slider
          label="Level"
          value={Math.round(walking.level * 100)}
          max={100}
          reads={`${Math.round(walking.level * 100)} %`}
          onChange={(value) => walking.tune(walking.speed, value / 100)}
        />
        <Slider
          label="Steps a second"
          value={Math.round(walking.speed * 2)}
          max={MOST_SPEED}
          reads={String(walking.speed)}
          onChange={(value) => walking.tune(value / 2, walking.level)}
        />
      </Section>
      <Section title="Without hands">
        <Choice
          label="Go on by itself"
          options={EVERY}
          value={every}
          onChange={(value) => handsFree.setEvery(Number(value))}
        />
        <Text kind="small">It goes on to the next lamp; what nobody marks stays untried.</Text>
        {handsFree.canSpeak && (
          <Check label="Speak the name of each" on={speaks} onChange={(on) => walkSpeaks.write(on ? 'yes' : 'no')} />
        )}
        <View className="gap-1">
          {KEY_ACTS.map((act) => (
            <View key={act} className="flex-row items-center gap-2">
              <Text className="flex-1">
                {KEY_WORDS[act]}: {handsFree.learning === act ? 'press the key…' : (keys[act] ?? 'no key')}
              </Text>
              <Button
                label={`Another key for ${KEY_WORDS[act]}`}
                short="Another key"
                onPress={() => handsFree.learn(handsFree.learning === act ? undefined : act)}
              />
            </View>
          ))}
        </View>
      </Section>
    </>
  );
}
