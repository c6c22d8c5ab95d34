/**
 * Disturbances that nobody listed: devices made up at random send beside the demo's own, and what Taxiarch says is held
 * against what really leaves the ports. `TAXIARCH_WILD=40 TAXIARCH_SEED=7 npm run measure -- wild`.
 */
import { wireKey } from '@taxiarch/core/base/address';
import { sendersOf } from '@taxiarch/core/network/flow';
import { Patch } from '@taxiarch/core/rig/patch';
import type { StandingReport, WhyReport } from '@taxiarch/core/truth/known';
import type { LiveReport } from '@taxiarch/core/whole/contract';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { mainAddress } from '@taxiarch/core/network/ip';
import { random } from '@taxiarch/core/truth/fault';
import { wait, type Extent, type Figure } from '../figure';
import { PANEL, get, ports, withServer, withStandIns } from '../server';
import { changedBetween, leaving } from './oracle';
import { drawStranger, startStranger, type Known, type Stranger, type Target } from './stranger';

const SETTLE_MS = 12_000;
/** Until everything that notices has noticed */
const NOTICED_MS = 6000;
const MOST_CALM_MS = 60_000;
const CASES = Number(process.env['TAXIARCH_WILD'] ?? 60);
const SEED = Number(process.env['TAXIARCH_SEED'] ?? Date.now() % 1_000_000);
/** Addresses that nobody in the demo has */
const ADDRESS = (i: number): string => `127.0.0.${150 + (i % 40)}`;

const demo = nightFerry();
const patch = new Patch(demo.lamp, demo.type, demo.run, demo.machine);
const universeOf = new Map(
  demo.universe.map(({ protocol, wire, number }) => [wireKey({ protocol, number: wire }), number]),
);

const targets: readonly Target[] = [
  ...demo.universe.map(({ protocol, wire, number }): Target => ({
    protocol,
    number: wire,
    nodes: demo.machine
      .filter(({ ports: all, controller }) =>
        controller
          ? number >= controller.firstUniverse && number < controller.firstUniverse + controller.universes
          : all.some(({ use, universe }) => use === 'out' && universe === number),
      )
      .map(mainAddress),
    planned: true,
  })),
  ...[200, 300, 7000].map((number): Target => ({ protocol: 'sacn', number, nodes: [], planned: false })),
  { protocol: 'artnet', number: 900, nodes: [], planned: false },
];

/** What is said of a case, at every height. */
interface Said {
  readonly live: LiveReport;
  readonly standing: StandingReport;
  readonly why: WhyReport | undefined;
}

const stand = () => get<StandingReport>('/api/standing');
const isCalm = ({ troubles, unexplained }: StandingReport): boolean => troubles.length + unexplained.length === 0;

async function calm(): Promise<boolean> {
  for (const end = Date.now() + MOST_CALM_MS; Date.now() < end; await wait(500))
    if (isCalm(await stand())) {
      await wait(500);
      if (isCalm(await stand())) return true;
    }
  return false;
}

interface Outcome {
  readonly case: Stranger;
  /** Show universes of ports from which something else leaves */
  readonly changed: readonly number[];
  readonly falseGreen: string;
  readonly falseBlame: string;
  readonly alarm: string;
  /** The stranger is the first that is named; null where there was nothing to name */
  readonly named: boolean | null;
  /** Lamps said beside lamps that are changed; null where nothing is */
  readonly lamps: readonly [said: number, are: number] | null;
}

/** Lamps of a show universe that have one of these slots (0–511). */
const lampsWith = (universe: number | undefined, slots: ReadonlySet<number>): string[] =>
  universe === undefined
    ? []
    : patch
        .universe(universe)
        .filter(({ channel, length }) =>
          Array.from({ length }, (_, i) => channel - 1 + i).some((one) => slots.has(one)),
        )
        .map(({ patched }) => patched.lamp.id);

function judge(one: Stranger, changed: readonly number[], are: number, { live, standing, why }: Said): Outcome {
  const stateOf = new Map(live.universes.flatMap(({ show, state }) => (show === null ? [] : [[show, state] as const])));
  const green = changed.filter((number) => stateOf.get(number) === 'steady');
  const falseGreen = [
    green.length > 0 && `universe ${green.join(', ')} is steady`,
    changed.length > 0 && isCalm(standing) && 'nothing stands against it',
    changed.length > 0 && why?.sure === 'as planned' && 'Why? says as planned',
  ];
  // Nothing of the plan was touched: only who sends beside it may be blamed.
  const blamed = standing.troubles.filter(({ about }) => about.kind !== 'stream');
  const { target, options, startCode } = one;
  const harmless =
    changed.length === 0 &&
    (!target.planned || (target.protocol === 'sacn' && ((options & 0x80) !== 0 || startCode !== 0)));
  const [worst] = standing.troubles;
  return {
    case: one,
    changed,
    falseGreen: falseGreen.filter(Boolean).join('; '),
    falseBlame: blamed.map(({ sure, says }) => `${sure}: ${says}`).join(' '),
    alarm: harmless && !isCalm(standing) ? standing.verdict : '',
    named:
      changed.length > 0
        ? worst?.about.kind === 'stream' && (worst.about.id === one.address || one.to === 'nodes')
        : null,
    lamps: changed.length > 0 ? [worst?.lamps ?? 0, are] : null,
  };
}

async function tryCase(one: Stranger): Promise<Outcome> {
  const before = await leaving();
  const stop = await startStranger(one, ports);
  try {
    await wait(NOTICED_MS);
    const now = await leaving();
    const slots = changedBetween(before, now, one.address);
    const changed = [...slots.keys()].flatMap((key) => universeOf.get(key) ?? []);
    const lamps = new Set([...slots].flatMap(([key, which]) => lampsWith(universeOf.get(key), which)));
    const its = universeOf.get(wireKey(one.target));
    const [live, standing, why] = await Promise.all([
      get<LiveReport>('/api/live'),
      stand(),
      its === undefined ? undefined : get<WhyReport>(`/api/why?kind=universe&id=${its}&part=`),
    ]);
    return judge(one, changed, lamps.size, { live, standing, why });
  } finally {
    stop();
  }
}

const share = (part: number, of: number): string => `${part} of ${of}`;

export const measure = (extent: Extent): Promise<Figure[]> =>
  withStandIns(() =>
    withServer(['--bench-port', String(PANEL)], async () => {
      await wait(extent.of(SETTLE_MS, SETTLE_MS));
      const next = random(SEED);
      const count = extent.of(CASES, 2);
      // As a stranger can hear it as well
      const { universes } = await get<LiveReport>('/api/live');
      const streams = universes.flatMap((universe) => universe.streams);
      const known = sendersOf(demo.machine).flatMap(({ name }): Known[] => {
        const cid = streams.find((of) => of.name === name)?.cid;
        return cid ? [{ name, cid }] : [];
      });
      const outcomes: Outcome[] = [];
      let restless = 0;
      for (let i = 0; i < count; i += 1) {
        if (!(await calm())) restless += 1;
        const outcome = await tryCase(drawStranger(next, ADDRESS(i), targets, known));
        outcomes.push(outcome);
        const { falseGreen, falseBlame, alarm, named, lamps } = outcome;
        const off = lamps && Math.abs(lamps[0] - lamps[1]) > 0.05 * lamps[1];
        const wrong = [
          falseGreen && `FALSE GREEN ${falseGreen}`,
          falseBlame && `blames ${falseBlame}`,
          alarm && `ALARM ${alarm}`,
          named === false && 'not named',
          off && `${lamps[0]} lamps said, ${lamps[1]} are`,
        ].filter(Boolean);
        if (wrong.length > 0) process.stdout.write(`  ${i} ${outcome.case.says}: ${wrong.join('; ')}\n`);
      }
      const amount = (which: (one: Outcome) => boolean) => outcomes.filter(which).length;
      const changing = amount(({ changed }) => changed.length > 0);
      const certain = amount(({ falseBlame }) => falseBlame.includes('certain:'));
      const likely = amount(({ falseBlame }) => falseBlame.includes('likely:'));
      const right = amount(({ lamps }) => lamps !== null && Math.abs(lamps[0] - lamps[1]) <= 0.05 * lamps[1]);
      const name = `${count} devices made up at random beside the demo, seed ${SEED}`;
      if (restless > 0) process.stdout.write(`  not calm before ${restless} of them\n`);
      return [
        {
          figure: `${name}: false greens, by what leaves the ports`,
          asked: '0',
          seen: `${amount(({ falseGreen }) => falseGreen !== '')}; ${changing} of them changed a port`,
          met: amount(({ falseGreen }) => falseGreen !== '') === 0,
        },
        {
          figure: 'the same: something healthy is blamed',
          asked: 'certain 0, likely at most 2 %',
          seen: `certain ${certain}, likely ${likely}`,
          met: certain === 0 && likely <= 0.02 * count,
        },
        {
          figure: 'the same: alarms where nothing changed and nobody planned listens',
          asked: '0',
          seen: String(amount(({ alarm }) => alarm !== '')),
          met: amount(({ alarm }) => alarm !== '') === 0,
        },
        {
          figure: 'the same: named first, where a port changed',
          asked: 'at least 85 %',
          seen: share(
            amount(({ named }) => named === true),
            changing,
          ),
          met: amount(({ named }) => named === true) >= 0.85 * changing,
        },
        {
          figure: 'the same: lamps affected within 5 %, where a port changed',
          asked: 'in 95 %',
          seen: share(right, changing),
          met: right >= 0.95 * changing,
        },
      ];
    }),
  );
