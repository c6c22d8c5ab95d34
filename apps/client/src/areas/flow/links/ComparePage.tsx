/** The show's patch beside that of another program, lamp by lamp; a difference can be lit and taken over. */
import { View } from 'react-native';
import { NowThere } from '@/areas/rig/exchange/NowThere';
import { FileChoice } from '@/areas/rig/files/FileChoice';
import { useStandIns } from '@/data/machines';
import { Button, Screen, Sentence, Text } from '@/ui';

export function ComparePage() {
  const picture = useStandIns().data?.find(({ kind }) => kind === 'visualiser')?.visualiser?.page;
  return (
    <Screen sentence={<Sentence>Which lamp does the other program have differently?</Sentence>}>
      <NowThere />
      <Text>
        Or export the rig from the other program as MVR or CSV and choose it here. Lamps are joined by their number.
        Each row says how the two differ; light both, see what moves, and adopt what is right.
      </Text>
      {picture && (
        <View>
          <Button
            label="The stand-in visualiser’s patch as CSV"
            onPress={() => window.open(`${picture}patch.csv`, '_blank', 'noopener')}
          />
        </View>
      )}
      <FileChoice />
    </Screen>
  );
}
