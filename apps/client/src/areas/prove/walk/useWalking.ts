/**
 * Walking: what this phone has in hand, in step with everybody else. While the server answers it says what comes next;
 * while it does not, this phone goes on by itself through what it knows to be open.
 */
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { StepReply } from '@taxiarch/core/whole/contract';
import type { Walk } from '@taxiarch/core/show/records';
import {
  WHOLE_WALK,
  factsOf,
  nextItem,
  walkItems,
  type WalkItem,
  type WalkPart,
  type WalkState,
  type Walker,
} from '@taxiarch/core/proving/walk';
import { Refusal } from '@/data/api';
import { useWaitingMarks, waitingKeys } from '@/data/markQueue';
import { whoIsHere } from '@/data/person';
import { useShow, type Show } from '@/data/show';
import { leaveWalk, markItem, readWalkAgain, stepWalk, tuneWalk, type Marked } from '@/data/walks';

/** Whoever has not stepped for so long says that they are there; without that what they have in hand is open again. */
const HERE_MS = 1500;
/** Steps a second and level with which a lamp is shown at first */
const SPEED = 1;

export interface Walking {
  readonly items: readonly WalkItem[];
  /** In hand; undefined at the end */
  readonly item: WalkItem | undefined;
  /** Nothing was asked yet */
  readonly begun: boolean;
  readonly states: ReadonlyMap<string, WalkState>;
  readonly left: number;
  readonly others: readonly Walker[];
  readonly lighting: StepReply['lighting'];
  /** Why nothing is lit, or why a step was refused */
  readonly trouble: string;
  /** The server does not answer. */
  readonly away: boolean;
  readonly lit: boolean;
  readonly speed: number;
  readonly level: number;
  readonly part: WalkPart;
  readonly canGoBack: boolean;
  mark(marked: Marked, photo?: Blob | null): void;
  next(): void;
  back(): void;
  setLit(lit: boolean): void;
  setPart(part: WalkPart): void;
  tune(speed: number, level: number): void;
}

const AWAY = 'The server is away.';

interface Now {
  readonly at: string;
  readonly begun: boolean;
  readonly reply: StepReply | undefined;
  readonly trouble: string;
  readonly away: boolean;
}

/** What comes next by what is known here alone. */
function nextHere(
  { items, patch, records }: Pick<Show, 'patch' | 'records'> & { readonly items: readonly WalkItem[] },
  { at, reply }: Now,
  own: ReadonlyMap<string, WalkState>,
  part: WalkPart,
): WalkItem | undefined {
  const done = new Set([...(reply?.states ?? []).map(({ key }) => key), ...own.keys()]);
  return nextItem({ items, facts: factsOf(records, patch), done, others: reply?.others ?? [] }, part, at);
}

/** `first`: key of what is wanted in hand at the begin; empty for what is open. */
export function useWalking(walk: Walk, first = ''): Walking {
  const { records, patch, seq } = useShow();
  const waiting = useWaitingMarks();
  const items = useMemo(() => walkItems(walk, patch), [walk, patch]);
  const [now, setNow] = useState<Now>({ at: '', begun: false, reply: undefined, trouble: '', away: false });
  const [part, setPartNow] = useState<WalkPart>(WHOLE_WALK);
  const [lit, setLitNow] = useState(true);
  const [light, setLight] = useState({ speed: SPEED, level: 1 });
  /** What was in hand before, for going back */
  const [way, setWay] = useState<readonly string[]>([]);
  /** Marked on this phone since the page was opened, whether or not the server has it */
  const own = useRef(new Map<string, WalkState>());
  const turn = useRef<Promise<unknown>>(Promise.resolve());
  /** When it last stepped, by the page’s clock */
  const stepped = useRef(0);
  /** What a step begins from: written by steps alone, so that no drawing in between takes it back. */
  const at = useRef(now);
  const latest = useRef({ part, lit, light, waiting, seq, items, patch, records });
  useEffect(() => {
    latest.current = { part, lit, light, waiting, seq, items, patch, records };
  });

  const states = useMemo(() => {
    const found = new Map(now.reply?.states.map(({ key, state }) => [key, state]));
    for (const [key, state] of own.current) if (!found.has(key) || now.away) found.set(key, state);
    return found;
  }, [now]);

  /** One step after the other. It is the same function all the while: edits of the show begin no walk anew. */
  const step = useCallback(
    (want: 'stay' | 'next' | 'this', wanted = '', beside?: Promise<unknown>) => {
      stepped.current = performance.now();
      const run = async () => {
        const before = at.current;
        const { part: takes, lit: shines, light: how, waiting: unsent } = latest.current;
        const done = [...new Set([...waitingKeys(unsent, walk.id), ...own.current.keys()])];
        try {
          const by = await whoIsHere();
          const asked = { by, part: takes, want, from: before.at, this: wanted, done };
          const reply = await stepWalk(walk.id, { ...asked, ...(shines && { light: how }) });
          const trouble = reply.trouble;
          at.current = { at: reply.at, begun: true, reply, trouble, away: false };
        } catch (error) {
          const gone = !(error instanceof Refusal) || !error.problem || error.problem.status >= 500;
          if (!gone) at.current = { ...before, begun: true, trouble: (error as Error).message, away: false };
          else {
            const here = () => nextHere(latest.current, before, own.current, takes)?.key ?? '';
            const key = want === 'stay' ? before.at : want === 'this' ? wanted : here();
            at.current = { ...before, at: key, begun: true, trouble: AWAY, away: true };
          }
        }
        // What was marked is safe on this phone before the next one is shown.
        const unkept = await beside?.then(
          () => undefined,
          () => 'This phone could not keep the mark: its memory is full, or closed to this page. Mark it again.',
        );
        if (unkept !== undefined) {
          own.current.delete(before.at);
          at.current = { ...before, trouble: unkept };
        }
        setNow(at.current);
      };
      const next = turn.current.then(run, run);
      turn.current = next;
      return next;
    },
    [walk.id],
  );

  useEffect(() => {
    void (first === '' ? step('next') : step('this', first));
    const timer = setInterval(() => {
      if (at.current.begun && performance.now() - stepped.current >= HERE_MS) void step('stay');
    }, HERE_MS / 3);
    return () => {
      clearInterval(timer);
      void turn.current.then(() => leaveWalk(walk.id));
      void readWalkAgain(walk.id);
    };
  }, [step, walk.id, first]);

  const item = items.find(({ key }) => key === now.at);
  const remember = () => now.at !== '' && setWay((before) => [...before.filter((key) => key !== now.at), now.at]);
  return {
    items,
    item,
    begun: now.begun,
    states,
    left: items.filter(({ key }) => !states.has(key)).length,
    others: now.away ? [] : (now.reply?.others ?? []),
    lighting: now.away ? 'off' : (now.reply?.lighting ?? 'off'),
    trouble: now.trouble,
    away: now.away,
    lit,
    ...light,
    part,
    canGoBack: way.length > 0,
    mark(marked, photo = null) {
      if (!item) return;
      own.current.set(item.key, marked.result);
      remember();
      void (async () => {
        const by = await whoIsHere();
        await step('next', '', markItem({ walk: walk.id, key: item.key, by, knew: latest.current.seq }, marked, photo));
      })();
    },
    next() {
      remember();
      void step('next');
    },
    back() {
      const before = way[way.length - 1];
      if (before === undefined) return;
      setWay(way.slice(0, -1));
      void step('this', before);
    },
    setLit(on) {
      setLitNow(on);
      latest.current.lit = on;
      void step(on && now.at !== '' ? 'this' : 'stay', now.at);
    },
    setPart(takes) {
      setPartNow(takes);
      latest.current.part = takes;
      void step('stay');
    },
    tune(speed, level) {
      setLight({ speed, level });
      latest.current.light = { speed, level };
      void tuneWalk(speed, level).catch(() => undefined);
    },
  };
}
