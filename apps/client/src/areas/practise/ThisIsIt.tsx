/** While somebody practises: says that a suspect is what is wrong. */
import { useState } from 'react';
import { View } from 'react-native';
import type { SuspectReport } from '@taxiarch/core/truth/known';
import { nameFault, usePractice } from '@/data/practice';
import { Button, Text } from '@/ui';

export function ThisIsIt({ suspect: { about, cause, says } }: { suspect: SuspectReport }) {
  const [answer, setAnswer] = useState('');
  if (!usePractice()?.running && answer === '') return null;
  const say = () =>
    void nameFault(about, cause).then(
      (right) => setAnswer(right ? 'That is right.' : 'That is not what is wrong.'),
      (error: Error) => setAnswer(error.message),
    );
  return (
    <View className="flex-row items-center gap-3">
      <Button label={`This is it: ${says}`} short="This is it" onPress={say} />
      <Text className="flex-1">{answer}</Text>
    </View>
  );
}
