/** All fixture types: those of the show and the library. */
import { useRouter } from 'expo-router';
import { useShow } from '@/data/show';
import { Button, Screen, Sentence, count } from '@/ui';
import { TypeSearch } from './TypeSearch';
import { useTypes } from './choose';

export function TypesPage() {
  const router = useRouter();
  const { records } = useShow();
  const types = useTypes();
  return (
    <Screen
      sentence={
        <Sentence>
          {count(records.type.length, 'type')} in the show, {types.length - records.type.length} more in the library.
        </Sentence>
      }
      acts={
        <>
          <Button label="Import a file" onPress={() => router.navigate('/rig/files')} />
          <Button label="Make a type" look="main" grow onPress={() => router.navigate('/rig/types/new')} />
        </>
      }
    >
      <TypeSearch onChoose={(type) => router.navigate(`/rig/types/${type.id}`)} />
    </Screen>
  );
}
