/** Stations that are there, each with the files that it offers. */
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import type { OfferedFile, StationReport, StationsReply } from '@taxiarch/core/whole/contract';
import { call } from '@/data/api';
import { fetchRig } from '@/data/exchange';
import { Button, Fold, Notice, Section, StateWord, Text, clockTime, spell } from '@/ui';
import { useAct } from '@/forms/useAct';

const sizeOf = (bytes: number): string =>
  bytes === 0 ? '' : bytes < 1024 * 1024 ? `${Math.ceil(bytes / 1024)} KiB` : `${(bytes / 1024 / 1024).toFixed(1)} MiB`;

const fileText = ({ comment, fileName, size, at }: OfferedFile): string =>
  [comment || fileName || 'without a comment', sizeOf(size), `heard of at ${clockTime(at)}`]
    .filter(Boolean)
    .join(' · ');

export function StationRows({ stations }: { stations: StationsReply }) {
  const router = useRouter();
  const { act, trouble, busy } = useAct();
  const compare = (stationId: string, fileId: string) =>
    void act(async () => router.navigate(await fetchRig(stationId, fileId)));
  const got = stations.fetching?.bytes ?? 0;
  return (
    <Section title="Stations">
      {stations.list.length === 0 && (
        <Text kind="soft">
          No station of this group is heard on {stations.address} yet. Switch the exchange on in the other program, in
          the same group.
        </Text>
      )}
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
      <View role="list" aria-label="Stations">
        {stations.list.map((one) => (
          <Station key={one.stationId} one={one} busy={busy} compare={compare} />
        ))}
      </View>
      {stations.fetching && (
        <View className="flex-row items-center gap-3">
          <Text className="flex-1">Fetching… {got > 0 && `${(got / 1024 / 1024).toFixed(1)} MiB`}</Text>
          <Button label="Stop" onPress={() => void call('cancelFetch')} />
        </View>
      )}
    </Section>
  );
}

/** Stations tell of themselves every 15 s; one that has not for twice as long may be gone. */
const QUIET_MS = 35_000;

function standing({ joined, heardAt }: StationReport): string {
  const age = Date.now() - heardAt;
  if (age > QUIET_MS) return `not heard for ${spell(age)}`;
  return joined ? 'joined' : 'joining…';
}

interface Given {
  readonly one: StationReport;
  readonly busy: boolean;
  readonly compare: (stationId: string, fileId: string) => void;
}

function Station({ one, busy, compare }: Given) {
  const { stationId, name, provider, address, joined, trouble, commits } = one;
  const [newest, ...older] = [...commits].reverse();
  return (
    <View role="listitem" aria-label={name} className="gap-2 border-b border-line py-3">
      <View className="flex-row items-center gap-3">
        <View className="flex-1">
          <Text kind="strong">{name}</Text>
          <Text kind="small">{[provider, address].filter(Boolean).join(' · ')}</Text>
        </View>
        {trouble !== '' && <StateWord state="must fix" />}
        {trouble === '' && <Text kind="small">{standing(one)}</Text>}
      </View>
      {trouble !== '' && <Text tone="fault">{trouble}</Text>}
      {newest ? (
        <>
          <Text>{fileText(newest)}</Text>
          <Button
            label={`Compare with ${name}`}
            short="Compare"
            look="main"
            disabled={busy}
            onPress={() => compare(stationId, newest.fileId)}
          />
        </>
      ) : (
        joined && <Text kind="soft">It offers no rig.</Text>
      )}
      {older.length > 0 && (
        <Fold title={`${older.length} before`} of={name}>
          {older.map((file) => (
            <View key={file.fileId} className="flex-row items-center gap-2 py-1">
              <Text kind="small" className="flex-1">
                {fileText(file)}
              </Text>
              <Button
                label={`Compare with ${name}: ${file.comment}`}
                short="Compare"
                disabled={busy}
                onPress={() => compare(stationId, file.fileId)}
              />
            </View>
          ))}
        </Fold>
      )}
    </View>
  );
}
