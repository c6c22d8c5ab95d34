/** What a page of this server may load and do: its own files, its own feed, and the scripts that stand in the page itself. */
import { createHash } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** Scripts that stand in a page, by their digests (Content Security Policy Level 3, hash-source). */
const digestsOf = (page: string): string[] =>
  [...page.matchAll(/<script>([^]*?)<\/script>/g)].map(
    ([, script]) => `'sha256-${createHash('sha256').update(script!).digest('base64')}'`,
  );

/** `client`: the folder of the built client, if there is one. */
export function contentPolicy(client: string | undefined): string {
  const page = client === undefined ? '' : join(client, 'index.html');
  const own = page !== '' && existsSync(page) ? digestsOf(readFileSync(page, 'utf8')) : [];
  return [
    "default-src 'self'",
    // The merge is WebAssembly.
    ["script-src 'self' 'wasm-unsafe-eval'", ...own].join(' '),
    // React Native for the web writes its styles while it runs.
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "worker-src 'self' blob:",
    "connect-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
}
