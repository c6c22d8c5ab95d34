/** How new addresses are found, as a person chooses it. */
import { View } from 'react-native';
import { readAddress } from '@taxiarch/core/base/address';
import { refuse, type Result, ok } from '@taxiarch/core/base/result';
import type { PlaceHow, PlaceRequest } from '@taxiarch/core/rig/patch';
import { Choice, Field } from '@/ui';
import { wholeFrom } from '@/data/numbers';

export interface PlaceForm {
  readonly how: PlaceHow;
  readonly start: string;
  readonly gap: string;
}

export const FIRST_PLACE: PlaceForm = { how: 'from', start: '1/1', gap: '0' };

const HOWS = [
  { value: 'from', label: 'From here' },
  { value: 'gaps', label: 'Fill gaps' },
  { value: 'after', label: 'At the end' },
] as const;

export function readPlace({ how, start, gap }: PlaceForm): Result<PlaceRequest> {
  const at = readAddress(how === 'from' ? start : start.includes('/') ? start : `${start}/1`);
  if (!at.ok) return at;
  const between = wholeFrom(gap);
  if (between === undefined || between < 0 || between > 511)
    return refuse('not-understood', 'The gap is 0 to 511 channels.');
  return ok({ how, start: at.value, gap: how === 'gaps' ? 0 : between });
}

export function PlaceChoice({ form, onChange }: { form: PlaceForm; onChange: (form: PlaceForm) => void }) {
  return (
    <View className="gap-2">
      <Choice label="Addresses" options={HOWS} value={form.how} onChange={(how) => onChange({ ...form, how })} />
      <View className="flex-row gap-2">
        <View className="flex-1">
          <Field
            label={form.how === 'from' ? 'Begin at' : 'From universe'}
            mono
            value={form.start}
            onChange={(start) => onChange({ ...form, start })}
          />
        </View>
        {form.how !== 'gaps' && (
          <View className="w-36">
            <Field label="Gap between" mono value={form.gap} onChange={(gap) => onChange({ ...form, gap })} />
          </View>
        )}
      </View>
    </View>
  );
}
