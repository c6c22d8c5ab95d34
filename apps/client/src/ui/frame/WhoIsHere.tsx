/** Asks once a device who sits at it, before the first thing that stands under somebody's name. */
import { useState } from 'react';
import { View } from 'react-native';
import { useAsking } from '@/data/person';
import { Button } from '../Button';
import { Field } from '../Field';
import { Sentence } from '../Sentence';
import { Text } from '../Text';

export function WhoIsHere() {
  const asking = useAsking();
  const [name, setName] = useState('');
  if (!asking) return null;
  const answer = () => name.trim() !== '' && asking.answer(name.trim());
  return (
    <View
      role="dialog"
      aria-label="Who is here?"
      className="absolute inset-0 items-center justify-end bg-ground/80 p-4 lg:justify-center"
    >
      <View className="w-full max-w-[420px] gap-3 rounded border border-line bg-surface p-4">
        <Sentence>Who is here?</Sentence>
        <Text>Your name stands in the history and beside what you take. This device asks once.</Text>
        <Field label="Your name" value={name} onChange={setName} autoFocus onSubmitEditing={answer} />
        <View className="flex-row gap-2">
          <Button label="Leave it" grow onPress={() => asking.dismiss()} />
          <Button label="That is me" look="main" grow disabled={name.trim() === ''} onPress={answer} />
        </View>
      </View>
    </View>
  );
}
