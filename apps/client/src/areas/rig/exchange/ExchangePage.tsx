/** The rig handed over live: who is there, what they offer, what is offered to them. Nothing is written by itself. */
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import type { ExchangeReply, Settings } from '@taxiarch/core/whole/contract';
import { useExchange, useExchangeSettings } from '@/data/exchange';
import { PageShape, Button, Check, Field, Fold, Notice, Screen, Section, Sentence, Text, count } from '@/ui';
import { HostSection } from './HostSection';
import { OfferSection } from './OfferSection';
import { ProgramRows } from './ProgramRows';
import { StationRows } from './StationRows';

function says(settings: Settings | undefined, data: ExchangeReply | undefined): string {
  if (!settings) return 'Looking…';
  if (!settings.stations && !settings.citp)
    return 'The exchange is off: nobody is told of the rig, and nobody is heard.';
  if (!data) return 'Looking…';
  const stations = data.stations?.list ?? [];
  const offers = stations.filter(({ commits }) => commits.length > 0).length;
  const programs = data.citp?.peers ?? [];
  const found = [
    ...(data.stations ? [count(stations.length, 'station')] : []),
    ...(data.citp ? [`${count(programs.length, 'program')} by CITP`] : []),
  ].join(' and ');
  return `${found}. ${offers === 0 ? 'No rig is offered.' : `${count(offers, 'rig')} offered.`}`;
}

function Switches() {
  const { settings, change } = useExchangeSettings();
  const [trouble, setTrouble] = useState('');
  const [name, setName] = useState('');
  const [group, setGroup] = useState('');
  useEffect(() => {
    if (!settings) return;
    setName(settings.stationName);
    setGroup(settings.stationGroup);
  }, [settings]);
  if (!settings) return <PageShape />;
  const set = (part: Partial<Settings>) =>
    void change(part).then(
      () => setTrouble(''),
      (error: Error) => setTrouble(error.message),
    );
  return (
    <Section title="Who may be there">
      <Check
        label="Exchange rigs with stations (MVR-xchange)"
        on={settings.stations}
        onChange={(stations) => set({ stations })}
      />
      <Check label="Programs that speak CITP" on={settings.citp} onChange={(citp) => set({ citp })} />
      {settings.citp && (
        <Check
          label="Select lamps together with them, both ways"
          on={settings.selects}
          onChange={(selects) => set({ selects })}
        />
      )}
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
      <Fold
        title={`Known to them as ${settings.stationName}, group ${settings.stationGroup}`}
        of="name and group among stations"
      >
        <View className="gap-3">
          <Field label="Name among stations" value={name} onChange={setName} />
          <Field label="Group of stations" value={group} onChange={setGroup} />
          <Text kind="small">Only stations of the same group find each other.</Text>
          <Button
            label="Be known by these"
            disabled={name === settings.stationName && group === settings.stationGroup}
            onPress={() => set({ stationName: name, stationGroup: group })}
          />
        </View>
      </Fold>
    </Section>
  );
}

export function ExchangePage() {
  const { settings } = useExchangeSettings();
  const { data, error } = useExchange();
  const { stations, citp, why = '', untold = 0 } = data ?? {};
  return (
    <Screen sentence={<Sentence>{says(settings, data)}</Sentence>}>
      {error && <Notice state="must fix">{error.message}</Notice>}
      {[why, stations?.trouble ?? '', citp?.trouble ?? '']
        .filter((one) => one !== '')
        .map((one) => (
          <Notice key={one} state="must fix">
            {one}
          </Notice>
        ))}
      {stations && <StationRows stations={stations} />}
      {citp && <ProgramRows citp={citp} untold={untold} selects={settings?.selects === true} />}
      {stations && <OfferSection stations={stations} />}
      <Switches />
      {stations && <HostSection stations={stations} />}
    </Screen>
  );
}
