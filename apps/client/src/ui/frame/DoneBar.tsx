/** What was just done, with the way back. */
import X from 'lucide-react-native/icons/x';
import { useState } from 'react';
import { View } from 'react-native';
import { forgetLastEdit, useLastEdit } from '@/data/lastEdit';
import { takeBack } from '@/data/show';
import { Button } from '../Button';
import { Text } from '../Text';

export function DoneBar() {
  const { sentence, isEdit } = useLastEdit();
  const [trouble, setTrouble] = useState('');
  if (sentence === '') return null;
  const undone = sentence.startsWith('Undid');
  const undo = async () => {
    setTrouble('');
    try {
      await takeBack(undone ? 'redo' : 'undo');
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  return (
    <View
      role="status"
      aria-label="Just done"
      className="min-h-14 flex-row items-center gap-2 border-t border-line bg-raised px-4 py-1"
    >
      <Text className="flex-1" numberOfLines={2} tone={trouble === '' ? undefined : 'fault'}>
        {trouble || `${sentence}.`}
      </Text>
      {isEdit && <Button label={undone ? 'Redo' : 'Undo'} onPress={() => void undo()} />}
      <Button label="Put away" icon={X} iconOnly look="bare" onPress={forgetLastEdit} />
    </View>
  );
}
