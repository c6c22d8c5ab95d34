/** Something more that happens, put on the time line. */
import { useState } from 'react';
import { View } from 'react-native';
import type { ShowRecords } from '@taxiarch/core/show/records';
import { portKey, portOfKey } from '@taxiarch/core/truth/simulate';
import { HAPPENS, type Happens, type WhatIfEvent } from '@taxiarch/core/truth/whatif';
import { metresFrom, wholeFrom } from '@/data/numbers';
import { useShow } from '@/data/show';
import { Button, Field, Pick, Text } from '@/ui';
import { HAPPENS_WORDS } from './words';

interface Target {
  readonly value: string;
  readonly label: string;
}

/** To whom each can happen. */
function targetsOf(kind: Happens, { machine, place }: ShowRecords): Target[] {
  const byName = (some: readonly { readonly id: string; readonly name: string }[]): Target[] =>
    some.map(({ id, name }) => ({ value: id, label: name }));
  const outlets = machine.filter(
    ({ ports, controller }) => controller !== null || ports.some(({ use }) => use === 'out'),
  );
  const senders = machine.filter(({ sends }) => sends !== null);
  switch (kind) {
    case 'place power':
      return byName(place);
    case 'multicast':
      return [...byName(outlets), ...byName(place)];
    case 'port cable':
      return outlets.flatMap(({ id, name, ports }) =>
        ports
          .filter(({ use }) => use === 'out')
          .map(({ number }) => ({ value: portKey(id, number), label: `${name}, port ${number}` })),
      );
    case 'freeze':
    case 'stop':
    case 'sync':
    case 'second desk':
      return byName(senders);
    case 'cable':
    case 'power':
    case 'lossy':
      return byName([...senders, ...outlets.filter(({ sends }) => sends === null)]);
  }
}

const USUAL: Readonly<Partial<Record<Happens, string>>> = { lossy: '30', 'second desk': '100' };
const AMOUNT: Readonly<Partial<Record<Happens, string>>> = { lossy: 'Lost, %', 'second desk': 'Priority' };

export function AddEvent({ onAdd }: { onAdd: (event: WhatIfEvent) => void }) {
  const { records } = useShow();
  const [kind, setKind] = useState<Happens>('freeze');
  const [target, setTarget] = useState('');
  const [at, setAt] = useState('2');
  const [lasts, setLasts] = useState('');
  const [amount, setAmount] = useState('');
  const targets = targetsOf(kind, records);
  const its = targets.find(({ value }) => value === target) ?? targets[0];
  const seconds = [metresFrom(at), lasts.trim() === '' ? 0 : metresFrom(lasts)];
  const much = AMOUNT[kind] ? wholeFrom(amount || USUAL[kind]!) : 0;
  const right =
    its !== undefined &&
    seconds.every((one) => one !== undefined && one >= 0 && one <= 3600) &&
    much !== undefined &&
    much >= 0 &&
    much <= (kind === 'lossy' ? 100 : 200);
  const add = () => {
    if (!its || !right) return;
    const { nodeId, port } = kind === 'port cable' ? portOfKey(its.value) : { nodeId: its.value, port: 0 };
    onAdd({ kind, id: nodeId, port, at: seconds[0]!, lasts: seconds[1]!, amount: much });
  };
  return (
    <View className="gap-2">
      <Pick
        label="What happens"
        options={HAPPENS.map((value) => ({ value, label: HAPPENS_WORDS[value] }))}
        value={kind}
        onChange={(value) => setKind(value as Happens)}
      />
      <Pick label="To whom" options={targets} value={its?.value ?? ''} onChange={setTarget} />
      <View className="flex-row items-end gap-2">
        <View className="flex-1">
          <Field label="At, s" mono inputMode="decimal" value={at} onChange={setAt} />
        </View>
        <View className="flex-1">
          <Field label="For, s" mono inputMode="decimal" placeholder="to the end" value={lasts} onChange={setLasts} />
        </View>
        {AMOUNT[kind] && (
          <View className="flex-1">
            <Field label={AMOUNT[kind]} mono placeholder={USUAL[kind]!} value={amount} onChange={setAmount} />
          </View>
        )}
      </View>
      {!right && <Text tone="fault">Say when it happens in seconds, from 0 to 3600.</Text>}
      <Button label="Put it on the time line" disabled={!right} onPress={add} />
    </View>
  );
}
