/** Protocol and number on the wire, typed in the counting that the person chooses and shown in both. */
import { View } from 'react-native';
import {
  formatPortAddress,
  lastWireNumber,
  readPortAddress,
  readSacnUniverse,
  type NumberingBase,
  type Protocol,
} from '@taxiarch/core/base/address';
import type { Result } from '@taxiarch/core/base/result';
import { countsFrom, usePreference } from '@/data/preferences';
import { Choice, Field, Text } from '@/ui';

export interface WireForm {
  readonly protocol: Protocol;
  /** As it was typed, in the counting of `base`; Art-Net also as 0.1.2 */
  readonly wire: string;
  readonly base: NumberingBase;
}

const PROTOCOLS = [
  { value: 'sacn', label: 'sACN' },
  { value: 'artnet', label: 'Art-Net' },
] as const;
const BASES = [
  { value: '0', label: 'From 0' },
  { value: '1', label: 'From 1' },
] as const;

export const readBase = (): NumberingBase => (countsFrom.read() === '1' ? 1 : 0);

/** A number on the wire as the form shows it. */
export const wireFormOf = (protocol: Protocol, number: number): WireForm => {
  const base = readBase();
  return { protocol, base, wire: String(protocol === 'artnet' ? number + base : number) };
};

/** The number on the wire that the form means. */
export const readWire = ({ protocol, wire, base }: WireForm): Result<number> =>
  protocol === 'sacn' ? readSacnUniverse(wire) : readPortAddress(wire, base);

interface Props {
  form: WireForm;
  set: (next: WireForm) => void;
  label?: string;
  /** Asks for the protocol alone. */
  numberless?: boolean;
}

export function WireNumber({ form, set, label = 'Number on the wire', numberless = false }: Props) {
  usePreference(countsFrom);
  const { protocol, base } = form;
  const read = readWire(form);
  const again = (number: Result<number>, next: WireForm): WireForm =>
    number.ok && number.value <= lastWireNumber(next.protocol) && (next.protocol === 'artnet' || number.value >= 1)
      ? { ...next, wire: String(next.protocol === 'artnet' ? number.value + next.base : number.value) }
      : next;
  return (
    <View className="gap-2">
      <Choice
        label="Protocol"
        options={PROTOCOLS}
        value={protocol}
        onChange={(next) => {
          // The first of one protocol is the first of the other: sACN 1 is Art-Net 0.
          const moved = read.ok
            ? { ...read, value: next === protocol ? read.value : read.value + (next === 'sacn' ? 1 : -1) }
            : read;
          set(again(moved, { ...form, protocol: next }));
        }}
      />
      {!numberless && (
        <View className="flex-row items-end gap-2">
          <View className="flex-1">
            <Field
              label={label}
              mono
              inputMode="decimal"
              value={form.wire}
              onChange={(wire) => set({ ...form, wire })}
              fault={read.ok || form.wire === '' ? undefined : read.why}
            />
          </View>
          {protocol === 'artnet' && (
            <View className="w-44">
              <Choice
                label="Counted"
                options={BASES}
                value={base === 1 ? '1' : '0'}
                onChange={(next) => {
                  countsFrom.write(next);
                  set(again(read, { ...form, base: next === '1' ? 1 : 0 }));
                }}
              />
            </View>
          )}
        </View>
      )}
      {!numberless && read.ok && (
        <Text kind="small">
          {protocol === 'artnet'
            ? `${read.value} counted from 0, ${read.value + 1} counted from 1, ${formatPortAddress(read.value)} as net, sub-net and universe.`
            : `${read.value} in the packet. A display that counts from 0 shows ${read.value - 1}.`}
        </Text>
      )}
    </View>
  );
}
