/** Nights to practise on: faults of the library, drawn by number, so that the same number brings the same night. */
import { FAULTS, random, type Fault } from '../fault';

export const HARDNESS = ['easy', 'middle', 'hard'] as const;
export type Hardness = (typeof HARDNESS)[number];

export const MOST_FAULTS = 8;
export const LAST_NIGHT = 9999;

/** Something is silent or dark, and its own front or page shows it. */
const EASY = new Set([
  'line-off',
  'node-off',
  'node-unplugged',
  'output-off',
  'port-elsewhere',
  'port-off',
  'third-source',
  'visualiser-off',
]);
/** Everything seems to be there and right; only comparing, or asking a person, tells. */
const HARD = new Set([
  'deaf-to-one',
  'fail-safe',
  'firmware',
  'mask-differs',
  'multicast-blocked',
  'other-interface',
  'same-cid',
  'short-packets',
  'start-code',
  'sync-nobody',
  'unicast-elsewhere',
]);

export function hardnessOf({ causes: [cause = ''] }: Fault): Hardness {
  if (EASY.has(cause)) return 'easy';
  return HARD.has(cause) ? 'hard' : 'middle';
}

/** Whether two can be planted at once: they are done to different boxes. */
export const areApart = (one: Fault, other: Fault): boolean =>
  !one.hands.some(({ id }) => other.hands.some((hand) => hand.id === id));

/**
 * The faults of a night: `count` of them (1–{@link MOST_FAULTS}), none harder than asked; on a hard night at least
 * every second one is hard. `number` (1–{@link LAST_NIGHT}) decides which.
 */
export function nightOf(number: number, count: number, hard: Hardness): Fault[] {
  const next = random(number * 31 + HARDNESS.indexOf(hard));
  const allowed = HARDNESS.slice(0, HARDNESS.indexOf(hard) + 1);
  const chosen: Fault[] = [];
  const draw = (from: readonly Fault[]) => {
    const left = from.filter((fault) => chosen.every((other) => areApart(fault, other)));
    if (left.length > 0) chosen.push(left[Math.floor(next() * left.length)]!);
  };
  for (let i = 0; i < count; i += 1) {
    const wanted = i % 2 === 0 ? [hard] : allowed;
    draw(FAULTS.filter((fault) => wanted.includes(hardnessOf(fault))));
  }
  return chosen;
}

/** What is wrong with the stand-ins on the bad night that ships, beside what is wrong in its plan. */
const BAD_NIGHT = ['backup-above', 'port-elsewhere-quay', 'boiler-unplugged', 'porthole-universe-off', 'gangway-off'];
export const badNightFaults = (): Fault[] => FAULTS.filter(({ id }) => BAD_NIGHT.includes(id));
