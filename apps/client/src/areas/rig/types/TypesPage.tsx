/** All fixture types: those of the show and the library. */
import { Link, useRouter } from 'expo-router';
import { useShow } from '@/data/show';
import { Button, Screen, Section, Sentence, Text, count } from '@/ui';
import { TypeSearch } from './TypeSearch';
import { useTypes } from './choose';

export function TypesPage() {
  const router = useRouter();
  const { records } = useShow();
  const types = useTypes();
  const unknown = records.type.filter((type) => type.unknown);
  const known = records.type.length - unknown.length;
  return (
    <Screen
      sentence={
        <Sentence>
          {count(known, 'type')} in the show, {types.length - records.type.length} more in the library.
        </Sentence>
      }
      acts={
        <>
          <Button label="Import a file" onPress={() => router.navigate('/rig/files')} />
          <Button label="Make a type" look="main" grow onPress={() => router.navigate('/rig/types/new')} />
        </>
      }
    >
      {unknown.length > 0 && (
        <Section title={`${count(unknown.length, 'type')} of which only the name is known`}>
          {unknown.map((type) => (
            <Link key={type.id} href={`/rig/types/${type.id}`} asChild>
              <Text tone="press" className="py-2">
                {type.name}: {count(records.lamp.filter(({ typeId }) => typeId === type.id).length, 'lamp')} wait. Say
                what it is
              </Text>
            </Link>
          ))}
        </Section>
      )}
      <TypeSearch onChoose={(type) => router.navigate(`/rig/types/${type.id}`)} />
    </Screen>
  );
}
