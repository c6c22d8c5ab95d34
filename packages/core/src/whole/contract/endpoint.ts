/** What an endpoint of the API is: everything that server, client and documents need to know of it, said once. */
import type { Field, Fields, ReportOf } from '../../base/field';
import { PATHS, type EndpointName, type Method } from './paths';
import type { ProblemName } from './problem';

/** A file as a reply, or as a body that is taken as it comes. */
export interface FileBody {
  readonly file: string;
}

export interface Endpoint<Params = unknown, Query = unknown, Body = unknown, Reply = unknown> {
  readonly method: Method;
  /** `{name}` stands for a part of the path */
  readonly path: string;
  /** What it does, in a sentence */
  readonly says: string;
  readonly params: Fields;
  /** Texts; all may be left out */
  readonly query: Fields;
  readonly body: Field | FileBody | null;
  /** Null for one that answers nothing */
  readonly reply: Field | FileBody | null;
  /** Status of an answer that is no problem */
  readonly status: 200 | 201 | 202 | 204;
  /** Problems beside those that every endpoint may give */
  readonly problems: readonly ProblemName[];
  /** Holds the types for TypeScript; nothing is ever here */
  readonly types?: { params: Params; query: Query; body: Body; reply: Reply };
}

type Described<F> = F extends Field<infer T> ? T : F extends FileBody ? Uint8Array : undefined;

interface Saying<P extends Fields, Q extends Fields, B, R> {
  readonly says: string;
  readonly params?: P;
  readonly query?: Q;
  readonly body?: B;
  readonly reply?: R;
  readonly status?: 200 | 201 | 202 | 204;
  readonly problems?: readonly ProblemName[];
}

/* eslint-disable-next-line @typescript-eslint/no-empty-object-type -- no fields at all */
type None = {};

/** The endpoint of a name; where it is stands in {@link PATHS}. */
export const at = <
  P extends Fields = None,
  Q extends Fields = None,
  B extends Field | FileBody | null = null,
  R extends Field | FileBody | null = null,
>(
  name: EndpointName,
  { says, params, query, body, reply, status = 200, problems = [] }: Saying<P, Q, B, R>,
): Endpoint<ReportOf<P>, Partial<ReportOf<Q>>, Described<B>, Described<R>> => ({
  method: PATHS[name][0],
  path: PATHS[name][1],
  says,
  params: params ?? {},
  query: query ?? {},
  body: body ?? null,
  reply: reply ?? null,
  status,
  problems,
});

export type ParamsOf<E> = E extends Endpoint<infer P, unknown, unknown, unknown> ? P : never;
export type QueryOf<E> = E extends Endpoint<unknown, infer Q, unknown, unknown> ? Q : never;
export type BodyOf<E> = E extends Endpoint<unknown, unknown, infer B, unknown> ? B : never;
export type ReplyOf<E> = E extends Endpoint<unknown, unknown, unknown, infer R> ? R : never;
