/** The ship as it hangs: what is lit and wrong there, and hands that climb up to a lamp or a cable. */
import { useState } from 'react';
import { View } from 'react-native';
import type { StandIn } from '@taxiarch/core/whole/contract';
import { wholeFrom } from '@/data/numbers';
import { useShow } from '@/data/show';
import { Button, Field, Pick, Text, count } from '@/ui';

const FAULTS = [
  { value: 'missing', label: 'take it down', hand: { faults: { missing: true } } },
  { value: 'deaf', label: 'it answers nothing', hand: { faults: { deaf: true } } },
  { value: 'slow', label: 'it answers late', hand: { faults: { slow: 1500 } } },
  { value: 'refuses', label: 'it takes no setting', hand: { faults: { refuses: true } } },
  { value: 'dead', label: 'it gives no light', hand: { faults: { dead: true } } },
  { value: 'coarse', label: 'pan and tilt of one slot each', hand: { faults: { coarse: true } } },
  { value: 'mode 1', label: 'its first mode', hand: { mode: 1 } },
  { value: 'mode 2', label: 'its second mode', hand: { mode: 2 } },
  { value: 'unplugged', label: 'pull its DMX cable', hand: { plug: null } },
] as const;
const CABLES = [
  { value: 'cut', label: 'cut behind the third lamp', line: { cut: 3 } },
  { value: 'out', label: 'out at the node', line: { cut: 0 } },
  { value: 'ragged', label: 'without a terminator', line: { ragged: 0.2 } },
  { value: 'sound', label: 'whole again', line: { cut: null, ragged: 0 } },
] as const;
/** What is wrong is told so far; the rest is counted. */
const MOST_TOLD = 6;

export function RigHands({ box, act }: { box: StandIn; act: (change: object) => void }) {
  const { records } = useShow();
  const [number, setNumber] = useState('');
  const [address, setAddress] = useState('');
  const [cable, setCable] = useState('');
  const lamps = [number.trim()];
  const none = wholeFrom(number) === undefined;
  const plugs = records.machine
    .filter(({ kind }) => kind === 'node')
    .flatMap(({ id, name, ports }) =>
      ports
        .filter(({ use }) => use === 'out')
        .map((port) => ({
          value: `${id.replace('machine-', '')} ${port.number}`,
          label: `${name}, port ${port.number}`,
        })),
    );
  const plugOf = (value: string) => {
    const [node = '', port] = value.split(' ');
    return { box: node, port: Number(port) };
  };
  const { rig } = box;
  if (!rig) return null;
  return (
    <View className="gap-2">
      <Text kind="small">
        {count(rig.lamps, 'lamp')} on their cables; {rig.lit} give light now.
      </Text>
      <Button label="See the ship" onPress={() => window.open(rig.page, '_blank')} />
      {rig.wrong.slice(0, MOST_TOLD).map((says) => (
        <Text key={says} kind="small" tone="warn">
          {says}
        </Text>
      ))}
      {rig.wrong.length > MOST_TOLD && <Text kind="small">and {rig.wrong.length - MOST_TOLD} more.</Text>}
      <View className="flex-row items-end gap-2">
        <View className="w-24">
          <Field label="Lamp" mono value={number} onChange={setNumber} placeholder="103" />
        </View>
        <View className="flex-1">
          <Pick
            label="What a hand does to it"
            options={[{ value: '', label: none ? 'say which first' : 'choose' }, ...FAULTS]}
            value=""
            onChange={(value) => {
              const fault = FAULTS.find((one) => one.value === value);
              if (fault && !none) act({ rig: { lamps, ...fault.hand } });
            }}
          />
        </View>
      </View>
      <View className="flex-row items-end gap-2">
        <View className="flex-1">
          <Field label="Start channel at the lamp" mono value={address} onChange={setAddress} placeholder="200" />
        </View>
        <Button
          label="Turn its switches"
          short="Turn"
          disabled={none || wholeFrom(address) === undefined}
          onPress={() => act({ rig: { lamps, address: wholeFrom(address) } })}
        />
      </View>
      <Pick
        label="Plug it into another cable"
        options={[{ value: '', label: none ? 'say which lamp first' : 'choose' }, ...plugs]}
        value=""
        onChange={(value) => value !== '' && !none && act({ rig: { lamps, plug: plugOf(value) } })}
      />
      <View className="flex-row items-end gap-2">
        <View className="flex-1">
          <Pick label="Cable" options={[{ value: '', label: 'choose' }, ...plugs]} value={cable} onChange={setCable} />
        </View>
        <View className="flex-1">
          <Pick
            label="How it is"
            options={[{ value: '', label: 'choose' }, ...CABLES]}
            value=""
            onChange={(value) => {
              const its = CABLES.find((one) => one.value === value);
              if (its && cable !== '') act({ rig: { line: { ...plugOf(cable), ...its.line } } });
            }}
          />
        </View>
      </View>
      <Button label="All lamps as they were hung" onPress={() => act({ reset: true })} />
    </View>
  );
}
