/** The show as the server has it, kept up to date by the edits that the feed brings. */
import { useMemo } from 'react';
import useSWR, { mutate } from 'swr';
import type { EditReply, FindingsReply, HistoryReply, ShippedShow, ShowReply } from '@taxiarch/core/whole/contract';
import { addressOf } from '@taxiarch/core/whole/contract/paths';
import type { Finding } from '@taxiarch/core/truth/check';
import { Patch, type PatchFinding, patchFindings } from '@taxiarch/core/rig/patch';
import { applyToRecords, type Edit, type ProposedChange } from '@taxiarch/core/show/edit';
import { emptyShow, type ShowRecords } from '@taxiarch/core/show/records';
import { call, fetchAddress } from './api';
import { noteLastEdit, noteToPerson } from './lastEdit';
import { feed } from './feed';
import { whoIsHere } from './person';
import { personName } from './preferences';

const SHOW = addressOf('readShow');
const HISTORY = addressOf('history');
const NOTHING = emptyShow();

/** An edit that follows on what we have is carried out here too; otherwise the show is read anew. */
function follow(edit: Edit): void {
  void mutate<ShowReply>(
    SHOW,
    (known) => {
      if (!known || edit.seq <= known.seq) return known;
      if (edit.seq !== known.seq + 1) {
        void mutate(SHOW);
        return known;
      }
      return { seq: edit.seq, records: applyToRecords(known.records, edit.changes) };
    },
    { revalidate: false },
  );
  void mutate((key) => typeof key === 'string' && key.startsWith(HISTORY));
}

feed.edits.on(follow);
const readAnew = () => {
  void mutate(SHOW);
  void mutate((key) => typeof key === 'string' && key.startsWith(HISTORY));
};
feed.returned.on(() => void mutate(SHOW));
feed.missed.on(readAnew);

export interface Show {
  readonly records: ShowRecords;
  readonly patch: Patch;
  readonly loaded: boolean;
  /** Number of the last edit in it; 0 before it has come */
  readonly seq: number;
}

const patches = new WeakMap<ShowRecords, Patch>();
let last: { readonly records: ShowRecords; readonly patch: Patch } | undefined;
const findings = new WeakMap<Patch, PatchFinding[]>();

/** One patch for all screens that look at the same records, and for edits that leave it as it is. */
function patchOf(records: ShowRecords): Patch {
  let patch = patches.get(records);
  if (!patch) {
    const { lamp, type, run, machine } = records;
    const same =
      last && (['lamp', 'type', 'run', 'machine'] as const).every((kind) => last!.records[kind] === records[kind]);
    patch = same ? last!.patch : new Patch(lamp, type, run, machine);
    patches.set(records, patch);
    last = { records, patch };
  }
  return patch;
}

export function useShow(): Show {
  const { data } = useSWR<ShowReply>(SHOW, fetchAddress);
  const records = data?.records ?? NOTHING;
  return useMemo(
    () => ({ records, patch: patchOf(records), loaded: data !== undefined, seq: data?.seq ?? 0 }),
    [records, data],
  );
}

/** What the patch finds wrong with itself, found once for all screens. */
export function useFindings(): readonly PatchFinding[] {
  const { records, patch } = useShow();
  let found = findings.get(patch);
  if (!found) {
    found = patchFindings(patch, records.universe);
    findings.set(patch, found);
  }
  return found;
}

const NO_FINDINGS: readonly Finding[] = [];

/**
 * What is wrong with the plan of the network, looked for by the server's own thread. Until the look at
 * the last edit is done the findings of the one before stand, and `known` says so.
 */
export function useNetworkLook(): { findings: readonly Finding[]; known: boolean } {
  const seq = useSWR<ShowReply>(SHOW, fetchAddress).data?.seq;
  const { data } = useSWR<FindingsReply>(seq === undefined ? null : addressOf('findings', {}, { seq }), fetchAddress, {
    keepPreviousData: true,
  });
  return { findings: data?.findings ?? NO_FINDINGS, known: data !== undefined && seq !== undefined && data.seq >= seq };
}

export const useNetworkFindings = (): readonly Finding[] => useNetworkLook().findings;

/** The newest edits, and what undo and redo would take back for whoever works here. */
export const useHistory = (newest = 30) =>
  useSWR<HistoryReply>(addressOf('history', {}, { author: personName.read(), newest }), fetchAddress, {
    keepPreviousData: true,
  }).data;

/** One edit of the history, with what it changed. */
export const useEdit = (seq: number) =>
  useSWR<EditReply, Error>(addressOf('readEdit', { seq: String(seq) }), fetchAddress);

/** Undoes every edit after this one, in one edit. */
export const goBack = (seq: number): Promise<Edit> =>
  written((author) => call('goBack', { params: { seq: String(seq) }, body: { author } }));

/** An edit that the server wrote is followed here and said to the person. */
async function written(asked: (author: string) => Promise<Edit>): Promise<Edit> {
  const edit = await asked(await whoIsHere());
  follow(edit);
  noteLastEdit(edit.sentence);
  return edit;
}

/** Sends an edit through the one door; rejects with a Refusal whose message can be shown. */
export const propose = (sentence: string, changes: readonly ProposedChange[]): Promise<Edit> =>
  written((author) => call('edit', { body: { author, sentence, changes } }));

/** Puts a show that ships with Taxiarch in place of this one. */
export const openShipped = (show: ShippedShow): Promise<Edit> =>
  written((author) => call('openShipped', { body: { author, show } }));

export const takeBack = (way: 'undo' | 'redo'): Promise<Edit> => written((author) => call(way, { body: { author } }));

/** Undo or redo by a key: says so where there is nothing to do, or why it can't be done. */
export async function undoByKey(way: 'undo' | 'redo'): Promise<void> {
  try {
    const history = await call('history', { query: { author: await whoIsHere(), newest: 1 } });
    if (history[way] === null) return noteToPerson(`Nothing of yours to ${way}`);
    await takeBack(way);
  } catch (error) {
    noteToPerson((error as Error).message.replace(/\.$/, ''));
  }
}
