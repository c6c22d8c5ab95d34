/** All routes: what each does, whether it runs, and switching them. */
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { routeText } from '@taxiarch/core/signal/route';
import { useHot, useLive } from '@/data/live';
import { makeHot } from '@/data/output';
import { runRoutes, wireName } from '@/data/routes';
import { useShow } from '@/data/show';
import { Button, Notice, Row, Screen, Sentence, Text, count } from '@/ui';

/** Switching on while safe asks first: it makes Taxiarch hot. */
export function useRouteSwitch() {
  const [trouble, setTrouble] = useState('');
  const [asking, setAsking] = useState<readonly string[]>();
  const hot = useHot();
  const run = (ids: readonly string[], on: boolean) => {
    setTrouble('');
    setAsking(undefined);
    void runRoutes(ids, on).catch((error: Error) => setTrouble(error.message));
  };
  return {
    toggle: (ids: readonly string[], on: boolean) => (on && !hot ? setAsking(ids) : run(ids, on)),
    shown: (
      <>
        {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
        {asking && (
          <View className="gap-2" role="group" aria-label="Make hot first">
            <Notice state="look at">Taxiarch is safe. Running a route sends values to the network.</Notice>
            <View className="flex-row gap-2">
              <Button label="Stay safe" grow onPress={() => setAsking(undefined)} />
              <Button
                label="Make hot and run"
                look="hot"
                grow
                onPress={() =>
                  void makeHot(true)
                    .then(() => run(asking, true))
                    .catch((error: Error) => setTrouble(error.message))
                }
              />
            </View>
          </View>
        )}
      </>
    ),
  };
}

export function RoutesPage() {
  const router = useRouter();
  const { records, loaded } = useShow();
  const live = useLive();
  const { toggle, shown } = useRouteSwitch();
  const routes = [...records.route].sort((a, b) => a.order - b.order);
  const now = new Map(live?.routes.map((one) => [one.id, one]));
  const running = routes.filter(({ id }) => now.get(id)?.running);
  return (
    <Screen
      sentence={
        <Sentence>
          {!loaded
            ? 'Reading the show…'
            : routes.length === 0
              ? 'No routes are planned. A route sends a universe that is heard on as another one.'
              : `${running.length} of ${count(routes.length, 'route')} running.`}
        </Sentence>
      }
      acts={
        <>
          {running.length > 0 && (
            <Button
              label="All off"
              grow
              onPress={() =>
                toggle(
                  running.map(({ id }) => id),
                  false,
                )
              }
            />
          )}
          <Button label="Add a route" look="main" grow onPress={() => router.navigate('/flow/routes/new')} />
        </>
      }
    >
      {shown}
      <View className="-mx-4">
        {routes.map((route) => {
          const { id, name } = route;
          const report = now.get(id);
          const on = report?.running ?? false;
          return (
            <View key={id} className="flex-row items-center border-b border-line pr-4">
              <View className="flex-1">
                <Row href={`/flow/routes/${id}`}>
                  <View className="flex-1">
                    <Text numberOfLines={1}>{name}</Text>
                    <Text kind="small" numberOfLines={2}>
                      {routeText(route, (wire) => wireName(wire, records.universe))}
                    </Text>
                    <Text kind="small" tone={on ? 'hot' : 'soft'}>
                      {on ? `● running, ${report!.rate} a second` : '○ off'}
                      {report && !report.inputs.includes(true) ? ', nothing comes in' : ''}
                    </Text>
                  </View>
                </Row>
              </View>
              <Button
                label={on ? `Switch ${name} off` : `Run ${name}`}
                short={on ? 'Off' : 'Run'}
                onPress={() => toggle([id], !on)}
              />
            </View>
          );
        })}
      </View>
    </Screen>
  );
}
