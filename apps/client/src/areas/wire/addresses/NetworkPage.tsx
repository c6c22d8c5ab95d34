/** One plan of addresses: its subnet, and the ranges in which its machines live. */
import { useLocalSearchParams } from 'expo-router';
import { useMemo } from 'react';
import { View } from 'react-native';
import type { Result } from '@taxiarch/core/base/result';
import { ipText, maskText, networkOf, putNetwork, rangesByKind, readSubnet, SCHEMES } from '@taxiarch/core/network/ip';
import { type Plan, removed } from '@taxiarch/core/show/edit';
import { type AddressRange, MACHINE_KINDS, type MachineKind, type Network } from '@taxiarch/core/show/records';
import { Delete } from '@/forms/Delete';
import { RecordFoot } from '@/forms/RecordFoot';
import { readBy, rulesOf } from '@/forms/rules';
import { useRecordForm } from '@/forms/useRecordForm';
import { useShow } from '@/data/show';
import { useLeaveFor, Button, Check, Empty, Field, Pick, Screen, Section, Sentence, Text } from '@/ui';

interface Form {
  readonly name: string;
  readonly subnet: string;
  readonly dhcp: boolean;
  readonly standIn: boolean;
  readonly ranges: readonly AddressRange[];
}

const formOf = (network: Network | undefined): Form => ({
  name: network?.name ?? 'Lighting network',
  subnet: network ? `${network.network}/${network.prefix}` : '',
  dhcp: network?.dhcp ?? false,
  standIn: network?.standIn ?? false,
  ranges: network?.ranges ?? [],
});

function planOf(form: Form, base: Network | undefined, id: string): Result<Plan> {
  const subnet = readSubnet(form.subnet);
  if (!subnet.ok) return subnet;
  const { address, prefix } = subnet.value;
  const network: Network = {
    id: base?.id ?? id,
    rev: base?.rev ?? 0,
    name: form.name.trim(),
    network: ipText(networkOf(address, prefix)),
    prefix,
    dhcp: form.dhcp,
    standIn: form.standIn,
    ranges: form.ranges,
  };
  return putNetwork(base, network);
}

const RULES = rulesOf('network', ['name']).shape({ subnet: readBy(readSubnet) });

export function NetworkPage() {
  const { network: id = '' } = useLocalSearchParams<{ network: string }>();
  const { records, loaded } = useShow();
  const network = records.network.find((one) => one.id === id);
  if (id === 'new' || network) return <Editor key={id} network={network} />;
  return loaded ? <Empty>This plan of addresses is not in the show any more.</Empty> : null;
}

const ANY = '';

function Editor({ network: record }: { network: Network | undefined }) {
  const leaveFor = useLeaveFor();
  const { records } = useShow();
  const editing = useRecordForm<Form, Network>('network', record, formOf, RULES);
  const { id, base, form, set, text } = editing;
  const plan = useMemo(() => planOf(form, base, id), [form, base, id]);
  const subnet = readSubnet(form.subnet);
  const put = (at: number, next: Partial<AddressRange>) =>
    set({ ranges: form.ranges.map((old, i) => (i === at ? { ...old, ...next } : old)) });
  return (
    <Screen sentence={<Sentence>{record ? record.name : 'A new plan of addresses.'}</Sentence>}>
      {!record && (
        <Section title="Begin with">
          <View className="flex-row flex-wrap gap-2">
            {SCHEMES.map(({ name, about, network, prefix }) => (
              <View key={network} className="w-[168px] gap-1">
                <Button
                  label={`${network}/${prefix}`}
                  look={form.subnet === `${network}/${prefix}` ? 'main' : 'plain'}
                  onPress={() => set({ subnet: `${network}/${prefix}`, name, ranges: rangesByKind(network, prefix) })}
                />
                <Text kind="small">{about}</Text>
              </View>
            ))}
          </View>
        </Section>
      )}
      <Field label="Name" {...text('name')} />
      <Field
        label="Subnet"
        mono
        placeholder="10.0.0.0/8"
        {...text('subnet')}
        fault={form.subnet === '' || subnet.ok ? undefined : subnet.why}
      />
      {subnet.ok && <Text kind="small">Mask {maskText(subnet.value.prefix)}.</Text>}
      <Check
        label="A machine of the show hands out addresses (DHCP)"
        on={form.dhcp}
        onChange={(dhcp) => set({ dhcp })}
      />
      <Check
        label="Loopback for stand-ins: each address is a machine"
        on={form.standIn}
        onChange={(standIn) => set({ standIn })}
      />
      <Section title="Ranges, by kind or by place">
        <Text kind="small">A machine gets the first range that fits it; the main console has the lowest address.</Text>
        {form.ranges.map((range, i) => (
          <View key={i} className="gap-2 border-b border-line pb-3">
            <View className="flex-row gap-2">
              <View className="flex-1">
                <Field label="Label" value={range.label} onChange={(label) => put(i, { label })} />
              </View>
              <View className="flex-1">
                <Pick
                  label="Kind"
                  options={[
                    { value: ANY, label: 'any kind' },
                    ...(range.kinds.length > 1
                      ? [{ value: range.kinds.join('+'), label: range.kinds.join(', ') }]
                      : []),
                    ...MACHINE_KINDS.map((value) => ({ value, label: value })),
                  ]}
                  value={range.kinds.join('+')}
                  onChange={(value) => put(i, { kinds: value === ANY ? [] : (value.split('+') as MachineKind[]) })}
                />
              </View>
            </View>
            <View className="flex-row items-end gap-2">
              <View className="flex-1">
                <Field label="First" mono value={range.first} onChange={(first) => put(i, { first })} />
              </View>
              <View className="flex-1">
                <Field label="Last" mono value={range.last} onChange={(last) => put(i, { last })} />
              </View>
            </View>
            <View className="flex-row items-end gap-2">
              <View className="flex-1">
                <Pick
                  label="Place"
                  options={[
                    { value: ANY, label: 'any place' },
                    ...records.place.map(({ id: value, name }) => ({ value, label: name })),
                  ]}
                  value={range.placeId ?? ANY}
                  onChange={(value) => put(i, { placeId: value || null })}
                />
              </View>
              <Button
                label={`Remove range ${i + 1}`}
                short="Remove"
                onPress={() => set({ ranges: form.ranges.filter((_, j) => j !== i) })}
              />
            </View>
          </View>
        ))}
        <View className="flex-row gap-2">
          <Button
            label="One more range"
            grow
            onPress={() =>
              set({ ranges: [...form.ranges, { label: '', kinds: [], placeId: null, first: '', last: '' }] })
            }
          />
          <Button
            label="Ranges by kind"
            grow
            disabled={!subnet.ok}
            onPress={() =>
              subnet.ok &&
              set({
                ranges: rangesByKind(ipText(networkOf(subnet.value.address, subnet.value.prefix)), subnet.value.prefix),
              })
            }
          />
        </View>
      </Section>
      <RecordFoot
        of={editing}
        plan={plan}
        act={record ? 'Change the plan' : 'Make the plan'}
        onDone={() => leaveFor('/wire/addresses')}
      />
      {record && (
        <Delete
          change={removed('network', record)}
          what={`the plan of addresses ${record.name}`}
          onDone={() => {
            editing.clear();
            leaveFor('/wire/addresses');
          }}
        />
      )}
    </Screen>
  );
}
