/** `npm run wasm`: makes `wideBytes.ts` of `wide.wat`, which holds the merge in WebAssembly's text. */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { format } from 'prettier';
import wabt from 'wabt';
import { root } from './bundle.mjs';

const folder = join(root, 'packages/core/src/signal/merge');
const text = readFileSync(join(folder, 'wide.wat'), 'utf8');
const tools = await wabt();
const bytes = tools.parseWat('wide.wat', text, { simd: true }).toBinary({}).buffer;
const made = `/** Made of wide.wat by \`npm run wasm\`; not to be changed by hand. */
export const WIDE_BYTES = new Uint8Array([${bytes.join(', ')}]);
`;
const options = JSON.parse(readFileSync(join(root, '.prettierrc.json'), 'utf8'));
writeFileSync(join(folder, 'wideBytes.ts'), await format(made, { ...options, parser: 'typescript' }));
