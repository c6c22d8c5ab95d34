/** Plans of addresses: which subnets the show has, who lives where in them, and the sheet to print. */
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { addressesOf, addressSheet, fillAddresses, inNetwork, ipNumber, maskText } from '@taxiarch/core/network/ip';
import type { Network, ShowRecords } from '@taxiarch/core/show/records';
import { useNetworkFindings, useShow } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import { Button, Choice, Screen, Section, Sentence, SentenceLink, Text, count, printSheet, useWide } from '@/ui';

const within = ({ network, prefix }: Network, { machine }: ShowRecords): number =>
  machine.filter((one) => addressesOf(one).some(({ number }) => inNetwork(number, ipNumber(network)!, prefix))).length;

function Fill({ network }: { network: Network }) {
  const { records } = useShow();
  const [which, setWhich] = useState<'new' | 'all'>('new');
  const plan = useMemo(() => fillAddresses(records, network, which), [records, network, which]);
  return (
    <View className="gap-3">
      <Choice
        label="Which machines"
        options={[
          { value: 'new', label: 'Only the new' },
          { value: 'all', label: 'All anew' },
        ]}
        value={which}
        onChange={setWhich}
      />
      <PlanPreview plan={plan} act="Give addresses" />
    </View>
  );
}

function NetworkCard({ network }: { network: Network }) {
  const router = useRouter();
  const { records } = useShow();
  const [filling, setFilling] = useState(false);
  return (
    <Section title={network.name}>
      <Text kind="mono">
        {network.network} / {maskText(network.prefix)}
      </Text>
      <Text kind="small">
        {count(within(network, records), 'machine')} in it
        {network.standIn && ' · loopback for stand-ins'}
        {network.dhcp && ' · hands out addresses'}
      </Text>
      {network.ranges.map(({ label, first, last, kinds, placeId }) => (
        <View key={first} className="flex-row gap-3">
          <Text className="w-40" numberOfLines={1}>
            {label || kinds.join(', ') || records.place.find(({ id }) => id === placeId)?.name}
          </Text>
          <Text kind="monoSmall">
            {first} – {last}
          </Text>
        </View>
      ))}
      <View className="flex-row gap-2">
        <Button label="Change" grow onPress={() => router.navigate(`/wire/addresses/${network.id}`)} />
        <Button label="Fill in" grow onPress={() => setFilling(!filling)} />
      </View>
      {filling && <Fill network={network} />}
    </Section>
  );
}

export function AddressesPage() {
  const router = useRouter();
  const wide = useWide();
  const { records, loaded } = useShow();
  const findings = useNetworkFindings();
  const sheet = useMemo(() => addressSheet(records), [records]);
  const without = sheet.filter(({ address }) => address === '').length;
  return (
    <Screen
      sentence={
        <Sentence>
          {!loaded
            ? 'Reading the show…'
            : records.network.length === 0
              ? 'No plan of addresses yet. Begin with a scheme.'
              : `${count(sheet.length - without, 'address', 'addresses')} in ${count(records.network.length, 'plan')}${without > 0 ? `; ${count(without, 'machine')} without one` : ''}. `}
          {findings.length > 0 && (
            <SentenceLink href={'/wire/findings'}>{`${count(findings.length, 'finding')}.`}</SentenceLink>
          )}
        </Sentence>
      }
      acts={
        <>
          <Button
            label="Export as CSV"
            short="Export"
            onPress={() => window.location.assign('/api/export/csv/addresses')}
          />
          <Button label="Print" onPress={() => printSheet('addresses')} />
          <Button label="New plan" look="main" grow onPress={() => router.navigate('/wire/addresses/new')} />
        </>
      }
    >
      {records.network.map((network) => (
        <NetworkCard key={network.id} network={network} />
      ))}
      <View id="addresses">
        <Section title="Address sheet">
          {sheet.map((row, i) => (
            <View key={`${row.name} ${i}`} className="min-h-9 flex-row items-center gap-3 border-b border-line py-1">
              <View className="flex-1">
                <Text numberOfLines={1}>{row.name}</Text>
                <Text kind="small" numberOfLines={1}>
                  {[row.kind, row.model, row.place].filter(Boolean).join(', ')}
                </Text>
              </View>
              {wide && (
                <Text kind="monoSmall" className="w-40">
                  {row.mac}
                </Text>
              )}
              <View className="items-end">
                <Text kind="mono">{row.address || 'no address'}</Text>
                <Text kind="monoSmall">{row.mask}</Text>
              </View>
            </View>
          ))}
        </Section>
      </View>
    </Screen>
  );
}
