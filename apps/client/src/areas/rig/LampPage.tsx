/** One lamp: what it is, where it stands, its channels with what is on the wire now, and changing it. */
import { Link, useLocalSearchParams, useRouter, type Href } from 'expo-router';
import { View } from 'react-native';
import { formatAddress, type SlotAddress } from '@taxiarch/core/address';
import { attributeLabel, channelMaximum, joinValue, rangeAt, type FixtureChannel } from '@taxiarch/core/fixture';
import { slotsOf, type PatchedLamp } from '@taxiarch/core/patch';
import { walkChosen } from '@/data/chosen';
import { onWire, useSlots } from '@/data/live';
import { useFindings, useShow } from '@/data/show';
import { Button, Screen, Section, Sentence, Text } from '@/ui';
import { EditLamp } from './EditLamp';

function ChannelRow({
  first,
  channel,
  values,
}: {
  first: SlotAddress | undefined;
  channel: FixtureChannel;
  values: readonly (number | undefined)[];
}) {
  const known = values.every((value) => value !== undefined);
  const value = known ? joinValue(values as number[]) : undefined;
  const share = value === undefined ? 0 : value / channelMaximum(channel);
  const range = value === undefined ? undefined : rangeAt(channel, value);
  if (!first) return null;
  return (
    <Link href={`/listen/u${first.universe}?slot=${first.channel}` as Href} asChild>
      <View className="min-h-11 flex-row items-center gap-3 border-b border-line">
        <Text kind="monoSmall" className="w-16">
          {formatAddress(first)}
        </Text>
        <View className="flex-1">
          <Text numberOfLines={1}>
            {attributeLabel(channel.attribute)}
            {channel.cell !== undefined && ` ${channel.cell}`}
          </Text>
          <View className="h-1 bg-raised">
            <View className="h-1 bg-press" style={{ width: `${share * 100}%` }} />
          </View>
        </View>
        <Text kind="small">
          {range?.name ?? (channel.offsets.length > 1 ? `${channel.offsets.length * 8} bit` : '')}
        </Text>
        <Text kind="mono" className="w-16 text-right">
          {value ?? '–'}
        </Text>
      </View>
    </Link>
  );
}

export function LampPage() {
  const { lamp: id = '' } = useLocalSearchParams<{ lamp: string }>();
  const { patch, loaded } = useShow();
  const patched = patch.lamp(id);
  if (patched) return <LampDetails key={id} patched={patched} />;
  return loaded ? (
    <View className="p-4">
      <Sentence>This lamp is not in the show any more.</Sentence>
    </View>
  ) : null;
}

function LampDetails({ patched }: { patched: PatchedLamp }) {
  const router = useRouter();
  const { records } = useShow();
  const { lamp, type, mode, footprint } = patched;
  const universe = records.universe.find((one) => one.number === lamp.universe);
  const place = records.place.find((one) => one.id === lamp.placeId);
  const addresses = mode.channels.map((channel) => slotsOf(patched, channel));
  const now = useSlots(onWire(addresses.flat(), records.universe));
  /** Place among all slots of each channel's first one */
  const firsts = addresses.map((_, i) => addresses.slice(0, i).reduce((sum, { length }) => sum + length, 0));
  const findings = useFindings().filter(({ subjects }) => subjects.includes(lamp.id));
  return (
    <Screen
      sentence={
        <View className="gap-1">
          <Sentence>
            {lamp.number} {lamp.name} at {formatAddress(lamp)}
          </Sentence>
          {findings.map(({ sentence }) => (
            <Text key={sentence} tone="fault">
              {sentence}
            </Text>
          ))}
        </View>
      }
      acts={
        <Button
          label="Prove this lamp"
          look="main"
          grow
          onPress={() => {
            walkChosen.set([lamp.id]);
            router.navigate('/prove');
          }}
        />
      }
    >
      <Text kind="soft">
        {type.maker} {type.name}, {mode.name}, {footprint} channels{place ? `. ${place.name}` : ''}: {lamp.x} m across,{' '}
        {lamp.y} m along, {lamp.z} m up.
      </Text>
      <Section title={universe ? 'Channels, as received now' : 'Channels'}>
        {mode.channels.map((channel, i) => (
          <ChannelRow
            key={`${channel.block ?? 1}/${channel.offsets.join()}`}
            first={addresses[i]![0]}
            channel={channel}
            values={addresses[i]!.map((_, byte) => now[firsts[i]! + byte]?.value)}
          />
        ))}
      </Section>
      <EditLamp patched={patched} />
    </Screen>
  );
}
