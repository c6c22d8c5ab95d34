/** Walks on the show's thread: what they cover, how they stand, and the marks that come in. */
import type { GivenMark } from '@taxiarch/core/whole/contract';
import { added, countOf, type ProposedEdit } from '@taxiarch/core/show/edit';
import { lampName, type PatchedLamp } from '@taxiarch/core/rig/patch';
import type { Mark, Walk } from '@taxiarch/core/show/records';
import {
  type StoodNow,
  coveredLamps,
  everyLamp,
  judgedWalk,
  lastMarks,
  marksOf,
  ordered,
  standsBy,
  swapsOf,
  walkReport,
  wayLength,
} from '@taxiarch/core/proving/walk';
import { ProblemError } from '../problemError';
import type { KeptFiles } from '../store/files';
import { StaleEdit, type ShowStore } from '../store/store';
import type { Handlers } from './api';
import { stoodNow } from './asked';

type WalkHandlers = Pick<Handlers, 'coverWalk' | 'readWalk' | 'readSwaps' | 'markWalk' | 'sendPhoto' | 'readPhoto'>;

/** Larger than this no photograph is kept. */
const MOST_PHOTO = 8 * 1024 * 1024;
const isPicture = (bytes: Uint8Array): boolean =>
  (bytes[0] === 0xff && bytes[1] === 0xd8) || (bytes[0] === 0x89 && bytes[1] === 0x50);
/** A mark that is older than this when it comes was made while the phone was away. */
const FRESH_MS = 10_000;
const RETRIES = 5;

export function walkHandlers(store: ShowStore, files: KeptFiles): WalkHandlers {
  const walkOf = (id: string): Walk => {
    const found = store.records().walk.find((one) => one.id === id);
    if (!found) throw new ProblemError('not-here', 'This walk is not in the show any more.');
    return found;
  };

  /** Marks that are not there yet, with what devices say now. */
  const fresh = (walkId: string, given: readonly GivenMark[], now: StoodNow): Mark[] => {
    const { records, patch } = store.rig();
    const news = new Map([...given].reverse().map((one) => [one.id, one]));
    for (const { id } of records.mark) news.delete(id);
    return given
      .filter((one) => news.get(one.id) === one)
      .map((one): Mark => {
        const patched = patch.lamp(one.lampId);
        const isNow = Math.abs(Date.now() - Date.parse(one.at)) <= FRESH_MS;
        // How devices stood while the phone was away nobody kept.
        return { ...one, rev: 0, walkId, stood: patched && isNow ? now.of(patched) : [] };
      });
  };

  const sentenceOf = (marks: readonly Mark[], lampOf: (id: string) => PatchedLamp | undefined): string => {
    const [first, ...more] = marks as [Mark, ...Mark[]];
    if (more.length > 0) return `Marked ${countOf(marks.length, 'lamp')} in a walk`;
    const patched = lampOf(first.lampId);
    return `Marked ${patched ? lampName(patched.lamp) : 'a lamp'} ${first.result}`;
  };

  return {
    coverWalk: ({ body: { covers, order, chosen }, ...call }) => {
      const { records, patch } = store.rig();
      const marked = [...everyLamp(records, patch, stoodNow(store, call))];
      const last = covers.kind === 'failed' ? records.walk.find(({ id }) => id === covers.id) : undefined;
      const failedIn = last
        ? judgedWalk(last, records, patch, stoodNow(store, call)).flatMap(({ lampId, state }) =>
            state === 'failed' || state === 'disputed' ? [lampId] : [],
          )
        : marked.flatMap(([id, { state }]) => (state === 'failed' || state === 'disputed' ? [id] : []));
      const before = {
        failed: new Set(failedIn),
        changed: new Set(
          marked.flatMap(([id, { state, changed }]) => (state === 'proved' && changed.length > 0 ? [id] : [])),
        ),
      };
      const lamps = ordered(coveredLamps(covers, records, patch, new Set(chosen), before), order, records.place);
      return {
        lampIds: lamps.map(({ lamp }) => lamp.id),
        metres: order === 'way' ? Math.round(wayLength(lamps)) : null,
      };
    },

    readWalk: ({ params: { walk }, ...call }) => {
      const { records, patch } = store.rig();
      return walkReport(walkOf(walk), records, patch, stoodNow(store, call));
    },

    readSwaps: ({ params: { walk } }) => {
      const { records, patch } = store.rig();
      const byLamp = new Map<string, Mark[]>();
      for (const marks of lastMarks(marksOf(records, walkOf(walk).id)).values()) {
        const mark = standsBy(marks);
        byLamp.set(mark.lampId, [...(byLamp.get(mark.lampId) ?? []), mark]);
      }
      const swaps = [...byLamp].flatMap(([id, marks]) => {
        const patched = patch.lamp(id);
        if (!patched) return [];
        return swapsOf(
          patched,
          marks,
          records.lamp.filter(({ typeId }) => typeId === patched.type.id),
        );
      });
      return {
        swaps: swaps.map(({ lampId, sentence, repairs }) => ({
          lampId,
          sentence,
          repairs: repairs.map(({ sentence: what, lines, changes }) => ({
            sentence: what,
            before: lines[0]?.before ?? '',
            after: lines[0]?.after ?? '',
            changes,
          })),
        })),
      };
    },

    markWalk: async ({ params: { walk }, body: { marks }, ...call }) => {
      walkOf(walk);
      const now = stoodNow(store, call);
      for (let tried = 0; ; tried += 1) {
        const news = fresh(walk, marks, now);
        if (news.length === 0) return { stored: 0, known: marks.length };
        const edit: ProposedEdit = {
          author: news[0]!.by,
          sentence: sentenceOf(news, (id) => store.rig().patch.lamp(id)),
          changes: news.map((one) => added('mark', one)),
        };
        try {
          await store.propose(edit);
          return { stored: news.length, known: marks.length - news.length };
        } catch (error) {
          // The same marks came at the same time by another way: what is still missing is written.
          if (!(error instanceof StaleEdit) || tried >= RETRIES) throw error;
        }
      }
    },

    sendPhoto: ({ bytes }) => {
      if (!isPicture(bytes)) throw new ProblemError('not-understood', 'A photograph is a JPEG or PNG file.');
      if (bytes.length > MOST_PHOTO)
        throw new ProblemError('too-large', 'This photograph is larger than 8 MB. Take it smaller.');
      return { sha256: files.keep(bytes) };
    },

    readPhoto: ({ params: { sha256 } }) => {
      const bytes = files.get(sha256);
      if (!bytes || !isPicture(bytes)) throw new ProblemError('not-here', 'This photograph is not here.');
      return { name: '', content: bytes };
    },
  };
}
