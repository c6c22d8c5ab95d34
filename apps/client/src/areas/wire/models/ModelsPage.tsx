/** Models: sheets of what each kind of box can do; those of the show, and those that ship with Taxiarch. */
import { useRouter } from 'expo-router';
import { useMemo } from 'react';
import { View } from 'react-native';
import { matchesWords } from '@taxiarch/core/network/jump';
import type { Model } from '@taxiarch/core/show/records';
import { useListChoice } from '@/data/preferences';
import { useShow } from '@/data/show';
import { Button, Field, Row, Screen, Sentence, Text, count } from '@/ui';
import { modelsToChoose } from '../machine/machineForm';

function can({ kind, ports, merges, rdm, universes, groups }: Model): string {
  return [
    kind,
    ports > 0 && count(ports, 'port'),
    ports > 0 && (merges.some((one) => one !== 'none') ? 'merges' : 'cannot merge'),
    rdm && 'RDM',
    universes !== null && count(universes, 'universe'),
    groups !== null && `${groups} groups`,
  ]
    .filter(Boolean)
    .join(', ');
}

export function ModelsPage() {
  const router = useRouter();
  const { records } = useShow();
  const [query, setQuery] = useListChoice('models search', '');
  const models = useMemo(
    () =>
      modelsToChoose(records)
        .filter((one) => query === '' || matchesWords(`${one.maker} ${one.name} ${one.kind}`, query))
        .sort((a, b) =>
          `${a.kind} ${a.maker} ${a.name}`.localeCompare(`${b.kind} ${b.maker} ${b.name}`, 'en', { numeric: true }),
        ),
    [records, query],
  );
  const used = new Map<string, number>();
  for (const { modelId } of records.machine) if (modelId !== null) used.set(modelId, (used.get(modelId) ?? 0) + 1);
  return (
    <Screen
      sentence={<Sentence>{count(models.length, 'model')} of machines.</Sentence>}
      acts={<Button label="New model" look="main" grow onPress={() => router.navigate('/wire/models/new')} />}
    >
      <Field
        label="Search models"
        hideLabel
        placeholder="Search: maker, name, kind"
        value={query}
        onChange={setQuery}
      />
      <View className="-mx-4">
        {models.map((model) => (
          <Row key={model.id} href={`/wire/models/${model.id}`}>
            <View className="flex-1">
              <Text numberOfLines={1}>
                {model.maker} {model.name}
              </Text>
              <Text kind="small" numberOfLines={1}>
                {can(model)}
              </Text>
            </View>
            {used.has(model.id) && <Text kind="small">{used.get(model.id)} in the show</Text>}
          </Row>
        ))}
      </View>
    </Screen>
  );
}
