/** Chromium on a machine without a screen and without a network. */
import { existsSync } from 'node:fs';

/** As Debian installs it; the one without windows needs less of the processor. */
export const CHROMIUM_PACKAGES = ['chromium-headless-shell', 'chromium'] as const;

/** The program; undefined where there is none. */
export const findChromium = (): string | undefined =>
  [process.env['CHROMIUM'] ?? '', ...CHROMIUM_PACKAGES.map((name) => `/usr/bin/${name}`)].find(
    (path) => path !== '' && existsSync(path),
  );

export const CHROMIUM_ARGS = ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'];
