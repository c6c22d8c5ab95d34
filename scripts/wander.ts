/**
 * `npm run wander`: a seeded robot opens the demo as people do and looks whether anything goes wrong.
 * `-- --minutes 60 --seed 7`; with `--url` it wanders in a Taxiarch that runs already.
 */
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { chromium, type Browser } from '@playwright/test';
import { CHROMIUM_ARGS, findChromium } from '../e2e/chromium';
import { startWhole } from '../e2e/start';
import { portsOf } from '../e2e/whole';
import { buildAll } from './built';
import { out } from './bundle.mjs';
import { Random } from './wander/random';
import { Session, type Failure, type Screen } from './wander/session';
import { wordsOf, type Step } from './wander/steps';

const { values } = parseArgs({
  options: {
    minutes: { type: 'string', default: '3' },
    seed: { type: 'string', default: String(Date.now() % 1_000_000) },
    url: { type: 'string', default: '' },
  },
});

/** Steps of one person before the next comes */
const STEPS = 60;
/** The whole that the robot wanders in has ports of its own. */
const PLACE = 40;
/** How often a shorter way to the same failure is tried */
const TRIES = 8;

const SCREENS: readonly Screen[] = [
  { width: 390, height: 844, theme: 'dark', slow: 1 },
  { width: 1280, height: 800, theme: 'dark', slow: 1 },
  { width: 390, height: 844, theme: 'light', slow: 4 },
  { width: 1280, height: 800, theme: 'light', slow: 1 },
];

/** Errors that the server and the stand-ins write */
const logged: string[] = [];
const note = (text: string) => {
  for (const line of text.split('\n'))
    if (/"level":(50|60)|Error:|unhandled|It was started again|EADDRINUSE/i.test(line)) logged.push(line.slice(0, 400));
};

async function replay(
  browser: Browser,
  screen: Screen,
  base: string,
  steps: readonly Step[],
): Promise<Failure | undefined> {
  const session = await Session.open(browser, screen, base);
  try {
    for (const step of steps) {
      const failure = await session.step(step);
      if (failure) return failure;
    }
    return undefined;
  } catch {
    return undefined;
  } finally {
    await session.close();
  }
}

/** The last few steps alone, if they fail as well; else the whole way, and whether that fails again. */
async function shortest(
  browser: Browser,
  screen: Screen,
  base: string,
  failure: Failure,
): Promise<{ steps: readonly Step[]; again: boolean }> {
  for (let length = 1, tries = 0; length < failure.steps.length && tries < TRIES; length *= 2, tries += 1) {
    const tail = failure.steps.slice(-length);
    if (await replay(browser, screen, base, tail)) return { steps: tail, again: true };
  }
  return { steps: failure.steps, again: (await replay(browser, screen, base, failure.steps)) !== undefined };
}

async function main(): Promise<number> {
  const seed = Number(values.seed);
  const random = new Random(seed);
  buildAll();
  const stop = values.url === '' ? await startWhole(PLACE, note) : async () => undefined;
  const base = values.url === '' ? `http://127.0.0.1:${portsOf(PLACE).page}` : values.url;
  const pictures = join(out, 'wander');
  mkdirSync(pictures, { recursive: true });
  const browser = await chromium.launch({ executablePath: findChromium(), args: CHROMIUM_ARGS });
  const until = performance.now() + Number(values.minutes) * 60_000;
  let [failures, once, steps] = [0, 0, 0];
  for (let person = 0; performance.now() < until; person += 1) {
    const screen = SCREENS[person % SCREENS.length]!;
    const session = await Session.open(browser, screen, base);
    for (let i = 0; i < STEPS && performance.now() < until; i += 1) {
      steps += 1;
      const failure = await session.wander(random).catch((error: Error) => ({ why: error.message, steps: [], at: '' }));
      const log = logged.splice(0);
      if (!failure && log.length === 0) continue;
      const picture = join(pictures, `failure-${failures + once + 1}.png`);
      await session.picture(picture);
      const found = failure ?? { why: `log: ${log.join(' | ')}`, steps: [], at: session.page.url() };
      const way =
        failure && failure.steps.length > 0
          ? await shortest(browser, screen, base, failure)
          : { steps: [], again: log.length > 0 };
      if (way.again) failures += 1;
      else once += 1;
      process.stdout.write(
        `\n${way.again ? 'Failure' : 'Seen once, not again on the same way,'} at ${found.at} (${screen.width}×${screen.height}, ${screen.theme}, seed ${seed}): ${found.why}\n` +
          `  last: ${session.last}\n${way.steps.map((step) => `  ${wordsOf(step)}\n`).join('')}  picture: ${picture}\n`,
      );
      break;
    }
    await session.close();
  }
  await Promise.race([browser.close(), new Promise((late) => setTimeout(late, 5000))]);
  await stop();
  process.stdout.write(`Seed ${seed}: ${steps} steps, ${failures} failures${once > 0 ? `, ${once} seen once` : ''}.\n`);
  return failures;
}

process.exit((await main()) > 0 ? 1 : 0);
