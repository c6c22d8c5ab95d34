/** One lamp: what it is, where it stands, its channels with what is on the wire now, and changing it. */
import { Link, useLocalSearchParams, useRouter, type Href } from 'expo-router';
import { View } from 'react-native';
import { formatAddress, wireKey } from '@taxiarch/core/address';
import { attributeLabel, channelMaximum, joinValue, type FixtureChannel } from '@taxiarch/core/fixture';
import type { PatchedLamp } from '@taxiarch/core/patch';
import { chooseLamps } from '@/areas/prove/choice';
import { useSlots } from '@/data/live';
import { useShow } from '@/data/show';
import { Button, Screen, Section, Sentence, Text } from '@/ui';
import { EditLamp } from './EditLamp';

function ChannelRow({
  patched,
  channel,
  values,
}: {
  patched: PatchedLamp;
  channel: FixtureChannel;
  values: readonly (number | undefined)[];
}) {
  const known = values.every((value) => value !== undefined);
  const value = known ? joinValue(values as number[]) : undefined;
  const share = value === undefined ? 0 : value / channelMaximum(channel);
  const first = patched.lamp.channel + channel.offsets[0]! - 1;
  return (
    <Link href={`/listen/u${patched.lamp.universe}?slot=${first}` as Href} asChild>
      <View className="min-h-11 flex-row items-center gap-3 border-b border-line">
        <Text kind="monoSmall" className="w-16">
          {formatAddress({ universe: patched.lamp.universe, channel: first })}
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
        <Text kind="small">{channel.offsets.length > 1 ? `${channel.offsets.length * 8} bit` : ''}</Text>
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
  const { records, patch } = useShow();
  const { lamp, type, mode, footprint } = patched;
  const universe = records.universe.find((one) => one.number === lamp.universe);
  const place = records.place.find((one) => one.id === lamp.placeId);
  const slots = mode.channels.flatMap((channel) => channel.offsets.map((offset) => lamp.channel + offset - 2));
  const now = useSlots(universe && wireKey({ protocol: universe.protocol, number: universe.wire }), slots);
  const valueAt = (slot: number) => now[slots.indexOf(slot)]?.value;
  const findings = patch.findings().filter(({ lamps }) => lamps.some((one) => one.id === lamp.id));
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
            chooseLamps([lamp.id]);
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
        {mode.channels.map((channel) => (
          <ChannelRow
            key={channel.offsets.join()}
            patched={patched}
            channel={channel}
            values={channel.offsets.map((offset) => valueAt(lamp.channel + offset - 2))}
          />
        ))}
      </Section>
      <EditLamp patched={patched} />
    </Screen>
  );
}
