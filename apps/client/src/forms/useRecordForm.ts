/** The one way to edit a record: what is typed is kept, with the record as it was when the typing began. */
import { yupResolver } from '@hookform/resolvers/yup';
import { useEffect, useMemo, useState } from 'react';
import { useForm, useWatch, type DefaultValues, type FieldValues, type Path, type PathValue } from 'react-hook-form';
import { object, type ObjectSchema } from 'yup';
import type { Row } from '@taxiarch/core/show/records';
import { newId } from '@/data/numbers';
import { useDraft } from './draft';

interface Typed<F, R> {
  readonly form: F;
  /** As it was when typing began: what is written follows on that, or is refused */
  readonly base: R | undefined;
}

/** What a field for text takes of a form. */
export interface TextOf {
  readonly value: string;
  readonly fault: string | undefined;
  readonly onChange: (text: string) => void;
}
export type TextKey<F> = { [K in keyof F]: F[K] extends string ? K : never }[keyof F] & string;

export interface RecordForm<F, R extends Row> {
  /** Of the record, or of the one that is to be made */
  readonly id: string;
  /** What the form was begun from; undefined for a new record */
  readonly base: R | undefined;
  readonly form: F;
  readonly set: (part: Partial<F>) => void;
  /** For a field of text: its value, what is wrong with it, and what is done when it is typed in. */
  readonly text: (name: TextKey<F>) => TextOf;
  /** What is wrong with fields that were typed in, by their names. */
  readonly faults: Readonly<Partial<Record<keyof F, string>>>;
  /** Does the work if nothing is wrong with any field. */
  readonly submit: (work: () => void) => () => void;
  readonly clear: () => void;
  /** Something was typed that is not written yet. */
  readonly typed: boolean;
  /** Somebody else has changed or deleted the record since typing began. */
  readonly stale: boolean;
}

const NO_RULES = object();

/**
 * `name` tells drafts of different forms of one record apart; `formOf` gives the form before anything is typed;
 * `rules` (see `rulesOf`) say beside a field what is wrong with it.
 */
export function useRecordForm<F extends FieldValues, R extends Row>(
  name: string,
  record: R | undefined,
  formOf: (record: R | undefined) => F,
  rules: ObjectSchema<object> = NO_RULES,
): RecordForm<F, R> {
  const [fresh] = useState(newId);
  const [draft, setDraft, dropDraft] = useDraft<Typed<F, R> | undefined>(`${name} ${record?.id ?? 'new'}`, undefined);
  const typed = draft !== undefined;
  const base = draft ? draft.base : record;
  const begun = formOf(base);
  const { control, formState, getValues, setValue, reset, trigger, handleSubmit } = useForm<F>({
    defaultValues: (draft?.form ?? begun) as DefaultValues<F>,
    resolver: useMemo(() => yupResolver(rules) as never, [rules]),
  });
  const watched = useWatch({ control }) as F;
  // Until something is typed it follows the show: another’s change, and a show that comes after the page.
  const form = typed ? watched : begun;
  const following = typed ? '' : JSON.stringify(begun);
  useEffect(() => {
    if (typed) void trigger();
    else reset(JSON.parse(following) as F);
  }, [following, typed, reset, trigger]);

  const set = (part: Partial<F>) => {
    for (const [key, value] of Object.entries(part))
      setValue(key as Path<F>, value as PathValue<F, Path<F>>, { shouldDirty: true, shouldValidate: true });
    setDraft({ form: { ...getValues() }, base });
  };
  const { errors } = formState;
  const faults: Partial<Record<keyof F, string>> = {};
  if (typed) {
    // What nobody has typed in yet is not wrong yet.
    for (const [key, error] of Object.entries(errors))
      if (typeof error?.message === 'string' && form[key] !== begun[key]) faults[key as keyof F] = error.message;
  }
  return {
    id: record?.id ?? fresh,
    base,
    form,
    set,
    text: (key) => ({
      value: form[key] as string,
      fault: faults[key],
      onChange: (text) => set({ [key]: text } as unknown as Partial<F>),
    }),
    faults,
    submit: (work) => () => void handleSubmit(work)(),
    clear: dropDraft,
    typed,
    stale: typed && base?.rev !== record?.rev,
  };
}
