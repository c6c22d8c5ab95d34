/** Lamps that are being added: what was typed of them, kept until they are written. */
import { useMemo } from 'react';
import type { SlotAddress } from '@taxiarch/core/base/address';
import type { Plan } from '@taxiarch/core/show/edit';
import { footprintOf } from '@taxiarch/core/rig/fixture';
import { addLamps } from '@taxiarch/core/rig/patch';
import type { FixtureMode, FixtureType } from '@taxiarch/core/show/records';
import { refuse, type Result } from '@taxiarch/core/base/result';
import { newId, wholeFrom } from '@/data/numbers';
import { placeFilter, usePreference } from '@/data/preferences';
import { useShow } from '@/data/show';
import { hasDraft, useDraft } from '@/forms/draft';
import { count } from '@/ui';
import { FIRST_PLACE, readPlace, type PlaceForm } from './PlaceChoice';
import { noteUsed, useTypes } from './types/choose';

export interface AddingForm {
  readonly typeId: string;
  readonly mode: string;
  readonly count: string;
  readonly number: string;
  readonly pattern: string;
  readonly placeId: string;
  readonly group: string;
  readonly place: PlaceForm;
}

export interface Adding {
  readonly form: AddingForm;
  readonly set: (part: Partial<AddingForm>) => void;
  readonly type: FixtureType | undefined;
  readonly mode: FixtureMode | undefined;
  /** “4 new” and the type’s name; undefined before a type is chosen */
  readonly what: string | undefined;
  readonly channels: number;
  readonly plan: Result<Plan>;
  /** With the first at a slot, the others following it */
  readonly planAt: (start: SlotAddress) => Result<Plan>;
  readonly typed: boolean;
  /** Begins anew. */
  readonly clear: () => void;
  /** They were written. */
  readonly done: () => void;
}

const DRAFT = 'add lamps';

export function useAdding(): Adding {
  const show = useShow();
  const place = usePreference(placeFilter);
  const types = useTypes();
  const highest = [...show.records.lamp, ...show.records.run].reduce((most, { number }) => Math.max(most, number), 0);
  const [form, setForm, clear] = useDraft<AddingForm>(DRAFT, {
    typeId: '',
    mode: '',
    count: '4',
    number: String(Math.floor(highest / 100) * 100 + 101),
    pattern: '',
    placeId: place,
    group: '',
    place: FIRST_PLACE,
  });
  const type = types.find(({ id }) => id === form.typeId);
  const mode = type?.modes.find(({ name }) => name === form.mode) ?? type?.modes[0];
  const many = wholeFrom(form.count) ?? 0;
  return useMemo(() => {
    const planFor = (where: PlaceForm): Result<Plan> => {
      if (!type || !mode) return refuse('nothing', 'Choose a fixture type.');
      const request = readPlace(where);
      if (!request.ok) return request;
      const numberFrom = wholeFrom(form.number);
      if (numberFrom === undefined || numberFrom < 1)
        return refuse('not-understood', 'The first number is a whole number from 1.');
      return addLamps(
        show,
        {
          type,
          mode,
          count: many,
          numberFrom,
          pattern: form.pattern || `${type.name} #`,
          place: request.value,
          placeId: form.placeId || null,
          groups: form.group.trim() === '' ? [] : [form.group.trim()],
        },
        newId,
      );
    };
    return {
      form,
      set: (part) => setForm({ ...form, ...part }),
      type,
      mode,
      what: type && mode ? `${many} new ${type.maker} ${type.name}` : undefined,
      channels: mode ? footprintOf(mode) * many : 0,
      plan: planFor(form.place),
      planAt: ({ universe, channel }) => planFor({ ...form.place, how: 'from', start: `${universe}/${channel}` }),
      typed: hasDraft(DRAFT),
      clear,
      done: () => {
        if (type) noteUsed(type.id);
        clear();
      },
    };
  }, [show, type, mode, form, many, setForm, clear]);
}

/** “4 lamps”, as the form has it. */
export const lampsText = ({ form }: Adding): string => count(wholeFrom(form.count) ?? 0, 'lamp');
