/** `npm run wasm`: makes `wideBytes.ts` of `wide.wat`, which holds the merge in WebAssembly's text. */
import { readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { format } from 'prettier';
import wabt from 'wabt';

const folder = join(dirname(fileURLToPath(import.meta.url)), '../packages/core/src/merge');
const text = readFileSync(join(folder, 'wide.wat'), 'utf8');
const tools = await wabt();
const bytes = tools.parseWat('wide.wat', text, { simd: true }).toBinary({}).buffer;
const made = `/** Made of wide.wat by \`npm run wasm\`; not to be changed by hand. */
export const WIDE_BYTES = new Uint8Array([${bytes.join(', ')}]);
`;
const options = JSON.parse(readFileSync(join(folder, '../../../../.prettierrc.json'), 'utf8'));
writeFileSync(join(folder, 'wideBytes.ts'), await format(made, { ...options, parser: 'typescript' }));
