import { defineConfig } from '@playwright/test';
import { CHROMIUM_ARGS, findChromium } from './chromium';
import { PERSON, WHOLES, portsOf } from './whole';

export default defineConfig({
  testDir: '.',
  globalSetup: './start.ts',
  workers: process.env['SCREENS'] ? 1 : WHOLES,
  // Bounds for what never comes; a computer whose cores are taken away for a while is given the time.
  timeout: 300_000,
  expect: { timeout: 60_000 },
  reporter: [['list'], ['json', { outputFile: '../.build/e2e.json' }]],
  outputDir: '../test-results',
  use: {
    // What cannot be pressed for so long never can.
    actionTimeout: 60_000,
    launchOptions: { executablePath: findChromium(), args: CHROMIUM_ARGS },
    colorScheme: 'dark',
    // The device knows who sits at it; that it asks is tested where it does.
    storageState: {
      cookies: [],
      origins: Array.from({ length: WHOLES }, (_, worker) => ({
        origin: `http://127.0.0.1:${portsOf(worker).page}`,
        localStorage: [{ name: 'person', value: PERSON }],
      })),
    },
  },
  projects: [
    { name: 'phone', testIgnore: /screens/, use: { viewport: { width: 390, height: 844 } } },
    // What a wide screen lays out otherwise: names and landmarks, lists beside pages, areas, panels. The rest is the same code on both.
    {
      name: 'wide',
      testMatch: /(access|areas|tour)\.spec/,
      grepInvert:
        /flow: |jump: |somebody else changed|streams of a universe|show: theme|one place is|leads to what it counts|the server goes|to stay taken|opened by its own|leads nowhere|finds a universe|changes its name|sees its level|loses the network|half-typed/,
      use: { viewport: { width: 1280, height: 800 } },
    },
    ...(process.env['SCREENS'] ? [{ name: 'screens', testMatch: /screens/ }] : []),
  ],
});
