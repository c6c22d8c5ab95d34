/** `npm run describe`: writes what docs say of the program from the program itself; `-- --check` says what is stale. */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { documents } from './describe/documents';
import { root } from './bundle.mjs';

const check = process.argv.includes('--check');
let stale = false;
for (const [path, text] of Object.entries(await documents())) {
  const file = join(root, path);
  if (!check) writeFileSync(file, text);
  else if (readFileSync(file, 'utf8') !== text) {
    stale = true;
    process.stdout.write(`${path} is not as the program is. Run: npm run describe\n`);
  }
}
process.exit(stale ? 1 : 0);
