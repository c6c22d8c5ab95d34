/** Writes the types of the client's addresses, so that a link that leads nowhere is found by the compiler. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { root } from './bundle.mjs';

const client = join(root, 'apps/client');

interface Generator {
  getTypedRoutesDeclarationFile(routes: unknown, options: object): string | null;
}
interface Testing {
  requireContext(folder: string, deep: boolean, ignore: RegExp): unknown;
}

export function writeRouteTypes(): void {
  const require = createRequire(join(client, 'package.json'));
  const { EXPO_ROUTER_CTX_IGNORE } = require('expo-router/_ctx-shared') as { EXPO_ROUTER_CTX_IGNORE: RegExp };
  const { requireContext } = require('expo-router/internal/testing') as Testing;
  const { getTypedRoutesDeclarationFile } = require('@expo/router-server/build/typed-routes/generate') as Generator;
  const routes = requireContext(join(client, 'src/app'), true, EXPO_ROUTER_CTX_IGNORE);
  const types = getTypedRoutesDeclarationFile(routes, {});
  if (types === null) throw new Error('The types of the client’s addresses could not be made.');
  mkdirSync(join(client, '.expo/types'), { recursive: true });
  writeFileSync(join(client, '.expo/types/router.d.ts'), types);
}
