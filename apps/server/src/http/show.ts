/** The show: reading it, changing it by edits, its history, undo and redo. */
import { LINES_TOLD, type HistoryReply, type LiveReport } from '@taxiarch/core/whole/contract';
import { badNight, nightFerry } from '@taxiarch/core/whole/demo';
import { editLines, refuseDoubles, type Edit } from '@taxiarch/core/show/edit';
import { planShow, writeRollTable } from '@taxiarch/core/files/format';
import { rollOf, type RollNow } from '@taxiarch/core/truth/roll';
import type { Findings } from '../findings/findings';
import type { Question } from '../findings/answer';
import type { ShowStore } from '../store/store';
import type { Handlers } from './api';
import { ProblemError } from '../problemError';

const HISTORY_LENGTH = 30;

const SHIPPED = {
  'night-ferry': { name: 'Night Ferry', make: nightFerry },
  'bad-night': { name: 'Night Ferry, bad night', make: badNight },
} as const;

const headOf = ({ changes: _, ...head }: Edit): Omit<Edit, 'changes'> => head;

type ShowHandlers = Pick<
  Handlers,
  | 'readShow'
  | 'edit'
  | 'findings'
  | 'why'
  | 'standing'
  | 'forecast'
  | 'forecastPush'
  | 'openShipped'
  | 'readRoll'
  | 'exportRoll'
  | 'history'
  | 'readEdit'
  | 'goBack'
  | 'undo'
  | 'redo'
>;

export function showHandlers(store: ShowStore, findings: Findings): ShowHandlers {
  const takeBack =
    (way: 'undo' | 'redo') =>
    async ({ body: { author } }: { body: { readonly author: string } }) => {
      const edit = await store[way](author);
      if (!edit) throw new ProblemError('nothing-to-do', `There is nothing of yours to ${way}.`);
      return edit;
    };

  const editOf = (seq: string): Edit => {
    const edit = store.editNumbered(Number(seq));
    if (!edit) throw new ProblemError('not-here', `The history has no edit ${seq}.`);
    return edit;
  };

  /** What is asked of the show beside the wire. */
  const ask = <Q extends Question>(live: LiveReport | undefined, question: Q, roll?: RollNow) => {
    if (!live) throw new ProblemError('not-ready', 'Nothing is known of the wire yet; ask again in a moment.');
    return findings.ask(store.lastSeq, store.records(), live, question, roll);
  };

  /** What lamps said, once anybody has asked them */
  const asked = (roll: RollNow | undefined) => (roll && roll.progress.began > 0 ? roll : undefined);

  const rollNow = (roll: RollNow | undefined) => {
    if (!roll) throw new ProblemError('not-ready', 'Nothing is known of the wire yet; ask again in a moment.');
    const { records, patch } = store.rig();
    return rollOf(records, patch, roll);
  };

  return {
    readShow: () => ({ seq: store.lastSeq, records: store.records() }),

    edit: ({ body }) => {
      const checked = refuseDoubles(body);
      if (!checked.ok) throw new ProblemError('not-understood', checked.why, { faults: checked.faults });
      return store.propose(checked.value);
    },

    findings: async () => {
      const seq = store.lastSeq;
      return { seq, findings: await findings.of(seq, store.records()) };
    },

    why: ({ query: { kind, id = '', part = '' }, live, roll }) => {
      if (!kind || id === '') throw new ProblemError('not-understood', 'Say of what: “kind” and “id”.');
      return ask(live, { type: 'why', about: { kind, id, part } }, asked(roll));
    },

    standing: ({ live, roll }) => ask(live, { type: 'standing' }, asked(roll)),

    forecast: ({ query: { universe, priority = 100 }, live }) => {
      if (universe === undefined) throw new ProblemError('not-understood', 'Say which universe: “universe”.');
      return ask(live, { type: 'forecast', universe, priority });
    },

    forecastPush: ({ query: { machines = '' }, live }) => {
      const machineIds = machines.split(',').filter(Boolean);
      if (machineIds.length === 0) throw new ProblemError('not-understood', 'Say which machines: “machines”.');
      return ask(live, { type: 'forecastPush', machineIds });
    },

    readRoll: ({ roll }) => rollNow(roll),
    exportRoll: ({ roll }) => ({ name: 'Roll call.csv', content: writeRollTable(rollNow(roll)) }),

    /** Puts a show that ships with Taxiarch in place of this one; undo brings this one back. */
    openShipped: ({ body: { author, show } }) => {
      const { name, make } = SHIPPED[show];
      const { sentence, changes } = planShow(store.records(), make(), `Opened the shipped show ${name}`);
      if (changes.length === 0) throw new ProblemError('nothing-to-do', `${name} is open already, as it ships.`);
      return store.propose({ author, sentence, changes });
    },

    history: ({ query: { author = '', newest = HISTORY_LENGTH } }): HistoryReply => {
      if (newest < 1)
        throw new ProblemError('not-understood', 'Say how many of the newest edits are wanted: a number from 1.');
      const edits = store.history(newest);
      const { undo, redo } = store.undoState(author);
      return {
        edits: [...edits].reverse().map(headOf),
        earlier: store.lastSeq - edits.length,
        undo: undo?.seq ?? null,
        redo: redo?.seq ?? null,
      };
    },

    readEdit: ({ params }) => {
      const edit = editOf(params.seq);
      const lines = editLines(edit, store.records());
      return {
        ...headOf(edit),
        lines: lines.slice(0, LINES_TOLD),
        more: Math.max(0, lines.length - LINES_TOLD),
        later: store.lastSeq - edit.seq,
      };
    },

    goBack: async ({ params, body: { author } }) => {
      const edit = await store.goBack(editOf(params.seq).seq, author);
      if (!edit) throw new ProblemError('nothing-to-do', 'The show is as it was after this edit. Nothing to undo.');
      return edit;
    },

    undo: takeBack('undo'),
    redo: takeBack('redo'),
  };
}
