/** Files that arrive: the server reads and compares them; what is chosen is written there as one edit. */
import { useEffect } from 'react';
import useSWR from 'swr';
import type { ImportChoiceBody, ImportKind, ImportReply } from '@taxiarch/core/whole/contract';
import { addressOf } from '@taxiarch/core/whole/contract/paths';
import { call, fetchAddress } from './api';
import { Followed, useFollowed } from './emitter';
import { whoIsHere } from './person';
import { useShow } from './show';

const KINDS: Readonly<Record<string, ImportKind>> = {
  mvr: 'mvr',
  gdtf: 'gdtf',
  json: 'show',
  csv: 'table',
  tsv: 'table',
  txt: 'table',
  xlsx: 'table',
  xlsm: 'table',
  xls: 'table',
  html: 'table',
  htm: 'table',
  ods: 'table',
};
/** What a file chooser offers */
export const ACCEPTED = Object.keys(KINDS)
  .map((end) => `.${end}`)
  .join(',');

/** Types first: what comes after them may be of them. */
const ORDER: readonly ImportKind[] = ['gdtf', 'show', 'mvr', 'table'];

/** Which reader a file wants, by the end of its name; undefined if none. */
const kindOf = (name: string): ImportKind | undefined => KINDS[name.toLowerCase().split('.').pop() ?? ''];

export interface Waiting {
  readonly id: string;
  readonly name: string;
}

/** Files that were brought in here and are neither written nor left, in the order in which they are looked at. */
const waiting = new Followed<readonly Waiting[]>([]);
export const useWaiting = (): readonly Waiting[] => useFollowed(waiting);

/** Files that were written or left: the server has let go of them. */
const ended = new Followed<readonly string[]>([]);
/** Files that are being written: they are not compared anew with their own edit. */
const writing = new Set<string>();

const forget = (id: string) => {
  waiting.set(waiting.read().filter((one) => one.id !== id));
  ended.set([...ended.read(), id]);
};

/** Brings files in; the first that is to be looked at. Rejects with a sentence that names a file of no kind that is read. */
export async function bringIn(files: readonly File[]): Promise<Waiting | undefined> {
  const odd = files.find(({ name }) => kindOf(name) === undefined);
  if (odd)
    throw new Error(
      `“${odd.name}” is of no kind that is read. Choose MVR, GDTF, a table (CSV, XLSX, ODS) or a show file.`,
    );
  const sorted = [...files].sort((a, b) => ORDER.indexOf(kindOf(a.name)!) - ORDER.indexOf(kindOf(b.name)!));
  for (const file of sorted) {
    const { id, name } = await call('beginImport', {
      params: { kind: kindOf(file.name)! },
      query: { name: file.name },
      body: file,
    });
    waiting.set([...waiting.read(), { id, name }]);
  }
  return waiting.read()[0];
}

export async function leaveArrival(id: string): Promise<Waiting | undefined> {
  forget(id);
  await call('cancelImport', { params: { id } }).catch(() => undefined);
  return waiting.read()[0];
}

/** Writes the chosen rows; `fields` stay as they are. The sentence of the edit, and which file is next. */
export async function writeArrival(
  id: string,
  keys: readonly string[],
  fields: readonly string[],
): Promise<{ sentence: string; next: Waiting | undefined }> {
  const author = await whoIsHere();
  writing.add(id);
  try {
    const { sentence } = await call('writeImport', { params: { id }, body: { author, keys, fields } });
    forget(id);
    return { sentence, next: waiting.read()[0] };
  } finally {
    writing.delete(id);
  }
}

const ASK_MS = 250;

/** A file that arrives, followed until it is read, and compared anew with each edit of the show. */
export function useArrival(id: string) {
  const { seq } = useShow();
  const gone = useFollowed(ended).includes(id);
  const { data, error, mutate } = useSWR<ImportReply, Error>(
    gone ? null : addressOf('readImport', { id }),
    fetchAddress,
    {
      keepPreviousData: false,
      refreshInterval: (reply) => (reply === undefined || reply.state === 'working' ? ASK_MS : 0),
    },
  );
  useEffect(() => {
    if (!gone && !writing.has(id)) void mutate();
  }, [seq, id, gone, mutate]);
  const choose = async (body: ImportChoiceBody) => {
    const reply = await call('chooseImport', { params: { id }, body });
    await mutate(reply, { revalidate: false });
  };
  return {
    reply: gone ? undefined : data,
    error: gone ? new Error('It was written or left. Bring it in again.') : error,
    choose,
  };
}
