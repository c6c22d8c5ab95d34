/** DMX adapters of the show, how each stands, and the serial ports that are there. */
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import type { PlugReport } from '@taxiarch/core/protocol/plug';
import { adapterPlanOf, isAdapter } from '@taxiarch/core/network/machine';
import type { Machine } from '@taxiarch/core/show/records';
import { useLive } from '@/data/live';
import { usePlugs } from '@/data/plugs';
import { useShow } from '@/data/show';
import { Button, Notice, Row, Screen, Section, Sentence, SentenceLink, StateWord, Text, count } from '@/ui';

/** The word for how a plug stands. */
export const plugState = (plug: PlugReport | undefined) =>
  plug === undefined
    ? undefined
    : plug.state === 'gone'
      ? 'missing'
      : plug.why !== '' || plug.silent
        ? 'look at'
        : 'steady';

function AdapterRow({ machine, plug }: { machine: Machine; plug: PlugReport | undefined }) {
  const { use, universe, serial, line } = adapterPlanOf(machine);
  const state = plugState(plug);
  return (
    <Row href={`/wire/adapters/${machine.id}`}>
      <View className="flex-1">
        <Text numberOfLines={1}>{machine.name}</Text>
        <Text kind="small" numberOfLines={1}>
          {use === 'out' ? 'sends' : 'takes in'} universe {universe} · {line.at || serial || 'nobody said where it is'}
        </Text>
      </View>
      {state ? <StateWord state={state} /> : <Text kind="small">off</Text>}
    </Row>
  );
}

export function AdaptersPage() {
  const router = useRouter();
  const { records } = useShow();
  const live = useLive();
  const { data, error } = usePlugs();
  const adapters = records.machine
    .filter(isAdapter)
    .sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));
  const running = live?.plugs ?? [];
  const ports = data?.ports ?? [];
  const planned = new Set(adapters.map(({ serial }) => serial).filter((serial) => serial !== ''));
  const gone = running.filter(({ state }) => state === 'gone').length;
  return (
    <Screen
      sentence={
        <Sentence>
          {adapters.length === 0
            ? 'No DMX adapter is planned.'
            : `${running.length} of ${count(adapters.length, 'adapter')} on${gone > 0 ? `, ${gone} not there` : ''}.`}
        </Sentence>
      }
      acts={<Button label="Add an adapter" look="main" grow onPress={() => router.navigate('/wire/adapters/new')} />}
    >
      <View>
        {adapters.map((machine) => (
          <AdapterRow
            key={machine.id}
            machine={machine}
            plug={running.find(({ machineId }) => machineId === machine.id)}
          />
        ))}
      </View>
      <Section title="Serial ports of this computer">
        {error && <Notice state="must fix">{error.message}</Notice>}
        {data && data.why !== '' && <Notice state="must fix">{data.why}</Notice>}
        {data && data.why === '' && ports.length === 0 && <Text kind="soft">None is there. Plug an adapter in.</Text>}
        {ports.length > 0 && (
          <View role="list" aria-label="Serial ports">
            {ports.map(({ path, maker, serial, name }) => (
              <View
                key={path}
                role="listitem"
                className="min-h-12 flex-row items-center gap-3 border-b border-line py-2"
              >
                <View className="flex-1">
                  <Text kind="mono">{path}</Text>
                  <Text kind="small">
                    {[maker, name, serial === '' ? 'no serial number, so it cannot be known again' : serial]
                      .filter(Boolean)
                      .join(' · ')}
                  </Text>
                </View>
                {serial !== '' &&
                  (planned.has(serial) ? (
                    <Text kind="small">in the show</Text>
                  ) : (
                    <Button
                      label={`Use ${path}`}
                      short="Use it"
                      onPress={() => router.navigate(`/wire/adapters/new?serial=${encodeURIComponent(serial)}`)}
                    />
                  ))}
              </View>
            ))}
          </View>
        )}
        <Text kind="small">
          A port of another computer is reached by RFC 2217: add an adapter and say its address and port number.
        </Text>
      </Section>
      <Text>
        Two programs and a plug on one computer:{' '}
        <SentenceLink href="/wire/same-computer">how to set that up</SentenceLink>.
      </Text>
    </Screen>
  );
}
