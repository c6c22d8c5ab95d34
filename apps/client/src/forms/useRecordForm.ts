/** The one way to edit a record: what is typed is kept, with the record as it was when the typing began. */
import { useState } from 'react';
import type { Row } from '@taxiarch/core/show/records';
import { newId } from '@/data/numbers';
import { useDraft } from './draft';

interface Typed<F, R> {
  readonly form: F;
  /** As it was when typing began: what is written follows on that, or is refused */
  readonly base: R | undefined;
}

export interface RecordForm<F, R extends Row> {
  /** Of the record, or of the one that is to be made */
  readonly id: string;
  /** What the form was begun from; undefined for a new record */
  readonly base: R | undefined;
  readonly form: F;
  readonly set: (part: Partial<F>) => void;
  readonly clear: () => void;
  /** Something was typed that is not written yet. */
  readonly typed: boolean;
  /** Somebody else has changed or deleted the record since typing began. */
  readonly stale: boolean;
}

/** `name` tells drafts of different forms of one record apart; `formOf` gives the form before anything is typed. */
export function useRecordForm<F extends object, R extends Row>(
  name: string,
  record: R | undefined,
  formOf: (record: R | undefined) => F,
): RecordForm<F, R> {
  const [fresh] = useState(newId);
  const [draft, setDraft, clear] = useDraft<Typed<F, R> | undefined>(`${name} ${record?.id ?? 'new'}`, undefined);
  const base = draft ? draft.base : record;
  const form = draft?.form ?? formOf(record);
  return {
    id: record?.id ?? fresh,
    base,
    form,
    set: (part) => setDraft({ form: { ...form, ...part }, base }),
    clear,
    typed: draft !== undefined,
    stale: draft !== undefined && draft.base?.rev !== record?.rev,
  };
}
