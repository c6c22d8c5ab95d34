/** The API as the table of endpoints has it: each is served by the handler of its name, and nothing else is. */
import Router from '@koa/router';
import type { IncomingMessage } from 'node:http';
import {
  ENDPOINTS,
  isField,
  type BodyOf,
  type Endpoint,
  type EndpointName,
  type ParamsOf,
  type QueryOf,
  type ReplyOf,
} from '@taxiarch/core/contract';
import type { Fields } from '@taxiarch/core/field';
import { checkWith } from '@taxiarch/core/records';
import { parseJson, readBody } from './body';
import { ProblemError } from './problem';

const MIB = 1024 * 1024;
/** Most bytes of a request in JSON */
const MOST_JSON = 64 * MIB;

export interface Call<E> {
  readonly params: ParamsOf<E>;
  readonly query: QueryOf<E>;
  readonly body: BodyOf<E>;
  /** For a body that is a file, to be read as it comes */
  readonly request: IncomingMessage;
}

/** A file as an answer. */
export interface FileAnswer {
  readonly name: string;
  readonly content: string | Uint8Array;
}

type Answer<E> = ReplyOf<E> extends Uint8Array ? FileAnswer : ReplyOf<E> extends undefined ? void : ReplyOf<E>;
export type Handler<E> = (call: Call<E>) => Answer<E> | Promise<Answer<E>>;
export type Handlers = { readonly [N in EndpointName]: Handler<(typeof ENDPOINTS)[N]> };

/** Texts of path or query as their fields want them. */
function readTexts(fields: Fields, given: Readonly<Record<string, unknown>>, what: string): Record<string, unknown> {
  const read: Record<string, unknown> = {};
  for (const [key, { schema }] of Object.entries(fields)) {
    const text = given[key];
    if (text === undefined) continue;
    if (typeof text !== 'string') throw new ProblemError('not-understood', `“${key}” is given more than once.`);
    if (schema['type'] === 'integer') {
      if (!/^\d{1,15}$/.test(text)) throw new ProblemError('not-understood', `“${key}” must be a whole number.`);
      read[key] = Number(text);
    } else {
      const choices = schema['enum'] as readonly string[] | undefined;
      if (choices && !choices.includes(text))
        throw new ProblemError('not-here', `${what} “${text}” is not known. Choose one of: ${choices.join(', ')}.`);
      read[key] = text;
    }
  }
  return read;
}

async function bodyFor({ body }: Endpoint, request: IncomingMessage): Promise<unknown> {
  if (body === null || !isField(body)) return undefined;
  const given = parseJson(await readBody(request, MOST_JSON));
  const checked = checkWith<unknown>(body.rule, given);
  if (checked.ok) return checked.value;
  throw new ProblemError('not-understood', checked.why, { faults: checked.faults });
}

export function apiRouter(handlers: Handlers): Router {
  const router = new Router();
  for (const [name, endpoint] of Object.entries<Endpoint>(ENDPOINTS)) {
    const handle = handlers[name as EndpointName] as unknown as Handler<Endpoint>;
    const path = endpoint.path.replace(/\{(\w+)\}/g, ':$1');
    router.register(path, [endpoint.method], async (ctx) => {
      const answer: unknown = await handle({
        params: readTexts(endpoint.params, ctx.params as Record<string, string>, 'The part of the address'),
        query: readTexts(endpoint.query, ctx.query, 'The choice'),
        body: await bodyFor(endpoint, ctx.req),
        request: ctx.req,
      });
      ctx.status = endpoint.status;
      if (endpoint.reply !== null && !isField(endpoint.reply)) {
        const { name: file, content } = answer as FileAnswer;
        ctx.attachment(file);
        ctx.type = endpoint.reply.file;
        ctx.body = typeof content === 'string' ? content : Buffer.from(content);
      } else if (endpoint.reply !== null) ctx.body = answer;
      else ctx.body = null;
      // A body of null makes Koa answer 204 whatever was said before.
      ctx.status = endpoint.status;
    });
  }
  return router;
}
