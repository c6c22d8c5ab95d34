/** The API as the table of endpoints has it: each is served by the handler of its name, and nothing else is. */
import Router from '@koa/router';
import type { IncomingMessage } from 'node:http';
import {
  ENDPOINTS,
  isField,
  type BodyOf,
  type Endpoint,
  type EndpointName,
  type LiveReport,
  type ParamsOf,
  type QueryOf,
  type ReplyOf,
} from '@taxiarch/core/whole/contract';
import { completed, type Fields } from '@taxiarch/core/base/field';
import { MOST_FILE_BYTES } from '@taxiarch/core/files/format/archive';
import { checkWith } from '@taxiarch/core/show/records';
import type { RollNow } from '@taxiarch/core/truth/roll';
import { isShowEndpoint, type RawCall, type RawReply, type ShowEndpoint } from '../bridge/showMessages';
import { parseJson, readBody } from './body';
import { ProblemError } from '../problemError';

const MIB = 1024 * 1024;
/** Most bytes of a request in JSON */
const MOST_JSON = 64 * MIB;

export interface Call<E> {
  readonly params: ParamsOf<E>;
  readonly query: QueryOf<E>;
  readonly body: BodyOf<E>;
  /** The body as it came, for one that is a file */
  readonly bytes: Uint8Array;
  /** What is on the wire, for those that ask */
  readonly live: LiveReport | undefined;
  /** What lamps answered, likewise */
  readonly roll: RollNow | undefined;
}

/** A file as an answer. */
export interface FileAnswer {
  readonly name: string;
  readonly content: string | Uint8Array;
  /** Its media type, where an endpoint gives several */
  readonly type?: string;
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

/** A request read as its endpoint wants it; throws a {@link ProblemError} otherwise. */
export const callOf = (endpoint: Endpoint, { params, query, bytes, live, roll }: RawCall): Call<Endpoint> => ({
  params: readTexts(endpoint.params, params, 'The part of the address'),
  query: readTexts(endpoint.query, query, 'The choice'),
  body: bodyOf(endpoint, bytes),
  bytes,
  live,
  roll,
});

function bodyOf({ body }: Endpoint, bytes: Uint8Array): unknown {
  if (body === null || !isField(body)) return undefined;
  const given = parseJson(bytes);
  const checked = checkWith<unknown>(body.rule, completed(body, given));
  if (checked.ok) return checked.value;
  throw new ProblemError('not-understood', checked.why, { faults: checked.faults });
}

/** Handlers of the first thread; the others are the show's. */
export type FrontHandlers = Omit<Handlers, ShowEndpoint>;

/** Bytes of a request's body, as many as its endpoint takes. */
async function bytesOf({ body }: Endpoint, request: IncomingMessage): Promise<Buffer> {
  if (body === null) return Buffer.alloc(0);
  return readBody(request, isField(body) ? MOST_JSON : MOST_FILE_BYTES);
}

/** Asks the show's thread. */
export type CallShow = (name: ShowEndpoint, call: RawCall) => Promise<RawReply>;

export function apiRouter(handlers: FrontHandlers, callShow: CallShow): Router {
  const router = new Router();
  for (const [name, endpoint] of Object.entries<Endpoint>(ENDPOINTS)) {
    const path = endpoint.path.replace(/\{(\w+)\}/g, ':$1');
    router.register(path, [endpoint.method], async (ctx) => {
      const params = ctx.params as Record<string, string>;
      const raw = { params, query: { ...ctx.query }, bytes: await bytesOf(endpoint, ctx.req) };
      if (isShowEndpoint(name as EndpointName)) {
        const { status, type, file, bytes } = await callShow(name as ShowEndpoint, raw);
        if (file !== '') ctx.attachment(file);
        if (type !== '') ctx.type = type;
        ctx.body = type === '' ? null : Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length);
        ctx.status = status;
        return;
      }
      const handle = handlers[name as keyof FrontHandlers] as unknown as Handler<Endpoint>;
      const answer: unknown = await handle(callOf(endpoint, raw));
      ctx.body = endpoint.reply === null ? null : answer;
      // A body of null makes Koa answer 204 whatever was said before.
      ctx.status = endpoint.status;
    });
  }
  return router;
}
