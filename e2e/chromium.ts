/** Chromium on a machine without a screen and without a network. */
export const CHROMIUM_PATH = process.env['CHROMIUM'] ?? '/usr/bin/chromium';
export const CHROMIUM_ARGS = ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'];
