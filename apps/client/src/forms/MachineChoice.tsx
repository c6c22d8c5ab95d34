/** Which machine is meant: one of the show, or a new one with its name, kind and address. */
import { View } from 'react-native';
import { PLAIN_MACHINE, type Machine, type MachineKind } from '@taxiarch/core/show/records';
import { Field, Pick } from '@/ui';

export interface MachineChoiceForm {
  /** Of a machine of the show; empty for a new one */
  readonly machineId: string;
  /** Of a new machine */
  readonly name: string;
  readonly kind: MachineKind;
  readonly address: string;
}

/** A new machine as the form says it; networks of 192.168 have masks of 24 bits, the others of this trade 8. */
export const newMachine = ({ name, kind, address }: MachineChoiceForm, id: string): Machine => ({
  ...PLAIN_MACHINE,
  id,
  rev: 0,
  name: name.trim(),
  kind,
  interfaces:
    address.trim() === ''
      ? []
      : [
          {
            name: '',
            mac: '',
            addresses: [{ way: 'fixed', address: address.trim(), prefix: /^192\.168\./.test(address) ? 24 : 8 }],
          },
        ],
});

interface Props {
  /** Of the list of machines */
  label: string;
  /** Of a new one’s name */
  newLabel: string;
  form: MachineChoiceForm;
  set: (next: Partial<MachineChoiceForm>) => void;
  machines: readonly Machine[];
  /** Kinds that a new one may be; the kind is not asked for if there is one */
  kinds: readonly MachineKind[];
}

export function MachineChoice({ label, newLabel, form, set, machines, kinds }: Props) {
  return (
    <>
      {machines.length > 0 && (
        <Pick
          label={label}
          options={[{ value: '', label: 'a new one' }, ...machines.map(({ id, name }) => ({ value: id, label: name }))]}
          value={form.machineId}
          onChange={(machineId) => set({ machineId })}
        />
      )}
      {form.machineId === '' && (
        <>
          <Field
            label={newLabel}
            placeholder="as it calls itself on the network"
            value={form.name}
            onChange={(name) => set({ name })}
          />
          <View className="flex-row gap-2">
            {kinds.length > 1 && (
              <View className="flex-1">
                <Pick
                  label="Kind"
                  options={kinds.map((value) => ({ value, label: value }))}
                  value={form.kind}
                  onChange={(kind) => set({ kind: kind as MachineKind })}
                />
              </View>
            )}
            <View className="flex-1">
              <Field
                label="Address"
                placeholder="if it is known"
                mono
                inputMode="decimal"
                value={form.address}
                onChange={(address) => set({ address })}
              />
            </View>
          </View>
        </>
      )}
    </>
  );
}
