/** Address switches of the lamps that are chosen, on the screen and as a sheet to print. */
import { useState } from 'react';
import { View } from 'react-native';
import {
  DIP_USUAL,
  dipSwitches,
  formatAddress,
  isAddressed,
  type DipScheme,
  type DipSwitch,
} from '@taxiarch/core/base/address';
import { addressesOf, lampsOf } from '@taxiarch/core/rig/patch';
import { rigSelection, useSelection } from '@/data/selection';
import { useShow } from '@/data/show';
import { Button, Choice, Empty, Field, Screen, Sentence, Text, count, printSheet, useColour } from '@/ui';

function Switches({ row }: { row: readonly DipSwitch[] }) {
  const colour = useColour();
  return (
    <View
      className="flex-row gap-1"
      role="img"
      aria-label={row.map(({ label, on }) => `${label} ${on ? 'on' : 'off'}`).join(', ')}
    >
      {row.map(({ label, on, up }, i) => (
        <View key={i} className="items-center">
          <View className="h-9 w-6 rounded-sm border border-line bg-raised p-0.5">
            <View
              style={{
                height: 14,
                marginTop: up ? 0 : 14,
                backgroundColor: colour(on ? 'press' : 'soft'),
                borderRadius: 2,
              }}
            />
          </View>
          <Text kind={on ? 'strong' : 'small'} style={{ fontSize: 13 }}>
            {label}
          </Text>
        </View>
      ))}
    </View>
  );
}

const TWO = [
  { value: 'left', label: 'Switch 1 left' },
  { value: 'right', label: 'Switch 1 right' },
] as const;
const ONS = [
  { value: 'up', label: 'On is up' },
  { value: 'down', label: 'On is down' },
] as const;
const BASES = [
  { value: '1', label: 'Channel 1 is 1' },
  { value: '0', label: 'Channel 1 is 0' },
] as const;

/** `DMX on, TEST off` as fixed switches. */
const readExtras = (text: string): DipScheme['extras'] =>
  text
    .split(',')
    .map((part) => part.trim())
    .filter((part) => part !== '')
    .map((part) => ({ label: part.replace(/\s+(on|off)$/i, ''), on: !/\s+off$/i.test(part) }));

export function DipPage() {
  const show = useShow();
  const chosen = useSelection(rigSelection);
  const lamps = lampsOf(show, chosen);
  const [scheme, setScheme] = useState<DipScheme>(DIP_USUAL);
  const [extras, setExtras] = useState('');
  if (lamps.length === 0) return <Empty>Choose lamps in the list to see how their address switches stand.</Empty>;
  const full = { ...scheme, extras: readExtras(extras) };
  return (
    <Screen
      sentence={<Sentence>Address switches of {count(lamps.length, 'lamp')}.</Sentence>}
      acts={<Button label="Print the sheet" look="main" grow onPress={() => printSheet('switches')} />}
    >
      <View className="gap-2">
        <Choice
          label="Order"
          options={TWO}
          value={scheme.order}
          onChange={(order) => setScheme({ ...scheme, order })}
        />
        <Choice label="Levers" options={ONS} value={scheme.on} onChange={(on) => setScheme({ ...scheme, on })} />
        <Choice
          label="Base"
          options={BASES}
          value={String(scheme.base) as '0' | '1'}
          onChange={(base) => setScheme({ ...scheme, base: base === '1' ? 1 : 0 })}
        />
        <Field label="Fixed switches after the nine, as in “10 on, 11 off”" value={extras} onChange={setExtras} />
      </View>
      <View id="switches">
        {lamps.flatMap(({ lamp }) =>
          addressesOf(lamp)
            .filter(isAddressed)
            .map((at, block) => {
              const row = dipSwitches(at.channel, full);
              return (
                <View
                  key={`${lamp.id} ${block}`}
                  className="gap-1 border-b border-line py-2"
                  style={{ breakInside: 'avoid' } as object}
                >
                  <View className="flex-row gap-3">
                    <Text kind="mono" className="font-medium">
                      {lamp.number}
                    </Text>
                    <Text className="flex-1" numberOfLines={1}>
                      {lamp.name}
                    </Text>
                    <Text kind="mono">{formatAddress(at)}</Text>
                  </View>
                  {row.ok ? <Switches row={row.value} /> : <Text tone="fault">{row.why}</Text>}
                </View>
              );
            }),
        )}
      </View>
    </Screen>
  );
}
