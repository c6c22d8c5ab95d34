/** Runs of pixels: their channels, universes and addresses, and what their controllers have to drive. */
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { formatAddress, type NumberingBase } from '@taxiarch/core/base/address';
import { absoluteEnds, pixelAccount } from '@taxiarch/core/rig/pixel';
import { useShow } from '@/data/show';
import { Button, Choice, Notice, Row, Screen, Section, Sentence, Text, count, printSheet } from '@/ui';

const BASES = [
  { value: '1', label: 'Absolute from 1' },
  { value: '0', label: 'Absolute from 0' },
] as const;

export function PixelsPage() {
  const router = useRouter();
  const { records } = useShow();
  const [base, setBase] = useState<'0' | '1'>('1');
  const account = useMemo(() => pixelAccount(records.run, records.machine), [records.run, records.machine]);
  return (
    <Screen
      sentence={
        <Sentence>
          {account.runs.length === 0
            ? 'No runs of pixels yet.'
            : `${count(account.pixels, 'pixel')} in ${count(account.runs.length, 'run')}, ${count(account.channels, 'channel')}.`}
        </Sentence>
      }
      acts={
        <>
          <Button label="CSV" onPress={() => window.location.assign('/api/export/csv/pixels')} />
          <Button label="Print" onPress={() => printSheet('pixels')} />
          <Button label="Add a run" look="main" grow onPress={() => router.navigate('/rig/pixels/new')} />
        </>
      }
    >
      {account.faults.map(({ sentence }) => (
        <Notice key={sentence} state="must fix">
          {sentence}
        </Notice>
      ))}
      <Choice label="Absolute channels" options={BASES} value={base} onChange={setBase} />
      <View id="pixels" className="gap-4">
        <View className="-mx-4">
          {account.runs.map((one) => {
            const ends = absoluteEnds(one, Number(base) as NumberingBase);
            return (
              <Row key={one.run.id} href={`/rig/pixels/${one.run.id}`}>
                <Text kind="mono" className="w-12 font-medium">
                  {one.run.number}
                </Text>
                <View className="flex-1">
                  <Text numberOfLines={1}>{one.run.name}</Text>
                  <Text kind="small" numberOfLines={1}>
                    {one.run.count} {one.run.order}
                    {one.run.bits === 16 ? ' 16 bit' : ''}, {count(one.channels, 'channel')}
                    {one.controller &&
                      ` · ${one.controller}${one.run.output === null ? '' : `, output ${one.run.output}`}`}
                  </Text>
                </View>
                <View className="items-end">
                  <Text kind="mono">
                    {one.first && one.last ? `${formatAddress(one.first)} – ${formatAddress(one.last)}` : '–'}
                  </Text>
                  <Text kind="monoSmall">{ends ? `${ends[0]} – ${ends[1]}` : ''}</Text>
                </View>
              </Row>
            );
          })}
        </View>
        {account.controllers.map(({ machine, firstUniverse, lastUniverse, outputs }) => (
          <Section
            key={machine.id}
            title={`${machine.name}${firstUniverse === undefined ? ', no runs' : firstUniverse === lastUniverse ? `, universe ${firstUniverse}` : `, universes ${firstUniverse} to ${lastUniverse}`}`}
          >
            {outputs.map(({ output, start, channels, pixels }) => (
              <View key={output} className="flex-row items-center gap-3">
                <Text className="flex-1">Output {output}</Text>
                <Text kind="mono">{start ? formatAddress(start) : '–'}</Text>
                <Text kind="monoSmall" className="w-48 text-right">
                  {pixels} px, {channels} of {machine.controller?.channelsPerOutput ?? '?'} ch
                </Text>
              </View>
            ))}
          </Section>
        ))}
      </View>
      <View className="gap-1">
        {account.controllers.map(({ machine }) => (
          <Button
            key={machine.id}
            label={`Change ${machine.name}`}
            onPress={() => router.navigate(`/rig/controllers/${machine.id}`)}
          />
        ))}
        <Button label="Add a controller" onPress={() => router.navigate('/rig/controllers/new')} />
      </View>
    </Screen>
  );
}
