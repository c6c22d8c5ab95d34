/** A machine of the plan: made, changed or deleted. */
import { useLocalSearchParams } from 'expo-router';
import { useMemo } from 'react';
import { View } from 'react-native';
import { hardwareAddress, maskText } from '@taxiarch/core/network/ip';
import { removed } from '@taxiarch/core/show/edit';
import { ADDRESS_WAYS, type AddressWay, isOffNetwork, type Machine, MACHINE_KINDS } from '@taxiarch/core/show/records';
import { Delete } from '@/forms/Delete';
import { RecordFoot } from '@/forms/RecordFoot';
import { rulesOf } from '@/forms/rules';
import { useRecordForm } from '@/forms/useRecordForm';
import { useShow } from '@/data/show';
import { useLeaveFor, Button, Check, Field, Pick, Screen, Section, Sentence, Text, Missing, useWide } from '@/ui';
import {
  EMPTY_ADDRESS,
  EMPTY_INTERFACE,
  formOf,
  hasPorts,
  modelsToChoose,
  planOf,
  type InterfaceForm,
  type MachineForm,
} from './machineForm';

const WAYS: Readonly<Record<AddressWay, string>> = {
  fixed: 'fixed',
  dhcp: 'by DHCP',
  'link-local': 'link-local',
  hardware: 'from hardware address',
};

const RULES = rulesOf('machine', ['name', 'firmware', 'mode', 'serial', 'notes']);

export function EditMachine() {
  const { machine: id = '' } = useLocalSearchParams<{ machine: string }>();
  const { records, loaded } = useShow();
  const machine = records.machine.find((one) => one.id === id);
  if (id === 'new' || machine) return <Editor key={id} machine={machine} />;
  return <Missing loaded={loaded} what="This machine" list="/wire" act="All machines" />;
}

function InterfaceRows({
  at,
  one,
  onChange,
  onRemove,
}: {
  at: number;
  one: InterfaceForm;
  onChange: (next: InterfaceForm) => void;
  onRemove: () => void;
}) {
  // On a phone an address has a line of its own, so that all of it is in sight.
  const wide = useWide();
  const mapped = hardwareAddress(one.mac.trim().toLowerCase(), 0x00ff);
  return (
    <View className="gap-2">
      <View className="flex-row items-end gap-2">
        <View className="flex-1">
          <Field
            label={`Interface ${at + 1}`}
            value={one.name}
            onChange={(name) => onChange({ ...one, name })}
            placeholder="as on the box"
          />
        </View>
        <View className="w-[200px]">
          <Field
            label="Hardware address"
            mono
            value={one.mac}
            onChange={(mac) => onChange({ ...one, mac })}
            placeholder="02:7f:…"
          />
        </View>
      </View>
      {one.addresses.map((address, i) => {
        const put = (next: Partial<typeof address>) =>
          onChange({ ...one, addresses: one.addresses.map((old, j) => (j === i ? { ...old, ...next } : old)) });
        const bits = Number(address.mask);
        return (
          <View key={i} className="gap-1">
            <View className={`flex-row items-end gap-2 ${wide ? '' : 'flex-wrap'}`}>
              <View className={wide ? 'w-36' : 'w-full'}>
                <Pick
                  label="Address"
                  options={ADDRESS_WAYS.map((value) => ({ value, label: WAYS[value] }))}
                  value={address.way}
                  onChange={(way) => put({ way: way as AddressWay })}
                />
              </View>
              <View className="flex-1">
                <Field
                  label={`Address ${i + 1}`}
                  hideLabel
                  mono
                  value={address.address}
                  onChange={(text) => put({ address: text })}
                  placeholder="10.0.0.21"
                />
              </View>
              <View className="w-20">
                <Field label="Mask" mono value={address.mask} onChange={(mask) => put({ mask })} />
              </View>
            </View>
            <Text kind="small">
              {address.way === 'hardware' && mapped ? `Comes to ${mapped}. ` : ''}
              {/^\d{1,2}$/.test(address.mask) && bits <= 32 ? `Mask ${maskText(bits)}.` : ''}
            </Text>
          </View>
        );
      })}
      <View className="flex-row gap-2">
        <Button
          label="One more address"
          look="bare"
          onPress={() => onChange({ ...one, addresses: [...one.addresses, EMPTY_ADDRESS] })}
        />
        {one.addresses.length > 1 && (
          <Button
            label="One less"
            look="bare"
            onPress={() => onChange({ ...one, addresses: one.addresses.slice(0, -1) })}
          />
        )}
        <Button label={`Remove interface ${at + 1}`} short="Remove interface" look="bare" onPress={onRemove} />
      </View>
    </View>
  );
}

function Editor({ machine }: { machine: Machine | undefined }) {
  const leaveFor = useLeaveFor();
  const { records } = useShow();
  const editing = useRecordForm<MachineForm, Machine>('machine', machine, formOf, RULES);
  const { id, base, form, set, text: textOf } = editing;
  const plan = useMemo(() => planOf(form, base, id, records), [form, base, id, records]);
  const models = modelsToChoose(records).filter(
    ({ kind }) => kind === form.kind || (form.kind === 'backup console' && kind === 'console'),
  );
  const text = (key: 'name' | 'firmware' | 'mode' | 'serial' | 'notes', label: string, placeholder = '') => (
    <View className="flex-1">
      <Field label={label} {...textOf(key)} placeholder={placeholder} />
    </View>
  );
  return (
    <Screen sentence={<Sentence>{base ? `${base.name}, as planned.` : 'A new machine for the plan.'}</Sentence>}>
      {text('name', 'Name')}
      <View className="flex-row gap-2">
        <View className="flex-1">
          <Pick
            label="Kind"
            options={MACHINE_KINDS.map((value) => ({ value, label: value }))}
            value={form.kind}
            onChange={(kind) =>
              set({
                kind: kind as MachineForm['kind'],
                modelId: '',
                ...(!machine && { ports: kind === 'node' ? '2' : '0' }),
              })
            }
          />
        </View>
        <View className="flex-1">
          <Pick
            label="Model"
            options={[
              { value: '', label: 'not known' },
              ...models.map(({ id: value, maker, name }) => ({ value, label: `${maker} ${name}` })),
            ]}
            value={form.modelId}
            onChange={(modelId) => set({ modelId })}
          />
        </View>
      </View>
      {hasPorts(form) && <Field label="DMX ports" mono inputMode="numeric" {...textOf('ports')} />}
      <Pick
        label="Place"
        options={[
          { value: '', label: 'nowhere yet' },
          ...records.place.map(({ id: value, name }) => ({ value, label: name })),
        ]}
        value={form.placeId}
        onChange={(placeId) => set({ placeId })}
      />
      {form.kind === 'USB adapter' && text('serial', 'Serial number', 'known by it in any socket')}
      <View className="flex-row gap-2">
        {text('firmware', 'Firmware expected', 'any')}
        {text('mode', 'Mode expected', 'none')}
      </View>
      {text('notes', 'Notes')}
      <Check label="Locked: nothing is pushed to it" on={form.locked} onChange={(locked) => set({ locked })} />
      {!isOffNetwork(form.kind) && (
        <Section title="Interfaces">
          {form.interfaces.map((one, i) => (
            <InterfaceRows
              key={i}
              at={i}
              one={one}
              onChange={(next) => set({ interfaces: form.interfaces.map((old, j) => (j === i ? next : old)) })}
              onRemove={() => set({ interfaces: form.interfaces.filter((_, j) => j !== i) })}
            />
          ))}
          <Button
            label="One more interface"
            onPress={() => set({ interfaces: [...form.interfaces, EMPTY_INTERFACE] })}
          />
        </Section>
      )}
      <RecordFoot
        of={editing}
        plan={plan}
        act={machine ? 'Change the machine' : 'Add the machine'}
        onDone={() => leaveFor(`/wire/${id}`)}
      />
      {machine && <Delete change={removed('machine', machine)} what={machine.name} onDone={() => leaveFor('/wire')} />}
    </Screen>
  );
}
