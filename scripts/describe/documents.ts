/** The documents that are made of the program: the API, and the schema of the show file. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  ENDPOINTS,
  FEED_MESSAGES,
  PROBLEMS,
  openApi,
  showFileSchema,
  type Endpoint,
} from '@taxiarch/core/whole/contract';
import { format } from 'prettier';
import { root } from '../bundle.mjs';

const BEGIN = '<!-- made by npm run describe -->';
const END = '<!-- end -->';

const table = (heads: readonly string[], rows: readonly (readonly string[])[]) =>
  [heads, heads.map(() => '---'), ...rows].map((row) => `| ${row.join(' | ')} |`).join('\n');

function endpoints(): string {
  const rows = Object.entries<Endpoint>(ENDPOINTS).map(([name, { method, path, query, says, status, problems }]) => {
    const asked = Object.keys(query).map((key) => `${key}=`);
    return [
      `\`${method} ${path}${asked.length > 0 ? `?${asked.join('&')}` : ''}\``,
      `\`${name}\``,
      says,
      String(status),
      problems.map((problem) => `\`${problem}\``).join(', '),
    ];
  });
  return table(['endpoint', 'name', 'what it does', 'answers', 'problems of its own'], rows);
}

const problems = () =>
  table(
    ['problem', 'status', 'title'],
    Object.entries(PROBLEMS).map(([name, { status, title }]) => [`\`${name}\``, String(status), title]),
  );

interface MessageSchema {
  readonly description?: string;
  readonly properties?: { readonly type?: { readonly enum?: readonly string[]; readonly const?: string } };
}

const messages = () =>
  table(
    ['message', 'goes', 'about'],
    (['toClient', 'toServer'] as const).flatMap((way) =>
      FEED_MESSAGES[way].map((schema) => {
        const { description = '', properties } = schema as MessageSchema;
        const type = properties?.type?.const ?? properties?.type?.enum?.[0] ?? '';
        return [`\`${type}\``, way === 'toClient' ? 'to the client' : 'to the server', description];
      }),
    ),
  );

export async function documents(): Promise<Record<string, string>> {
  const options = JSON.parse(readFileSync(join(root, '.prettierrc.json'), 'utf8')) as object;
  const api = readFileSync(join(root, 'docs/api.md'), 'utf8');
  const made = [BEGIN, endpoints(), '## Problems', problems(), '## Text messages of the feed', messages(), END].join(
    '\n\n',
  );
  const text = api.replace(new RegExp(`${BEGIN}[^]*${END}`), () => made);
  const json = (value: unknown) => format(JSON.stringify(value), { ...options, parser: 'json' });
  return {
    'docs/api.md': await format(text, { ...options, parser: 'markdown' }),
    'docs/openapi.json': await json(openApi),
    'docs/show-file.schema.json': await json(showFileSchema),
  };
}
