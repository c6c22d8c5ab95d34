/** Requests to the server, typed by the table of endpoints; what it refuses comes back as a sentence. */
import type { BodyOf, ENDPOINTS, ParamsOf, Problem, QueryOf, ReplyOf } from '@taxiarch/core/whole/contract';
import { PATHS, addressOf, type EndpointName } from '@taxiarch/core/whole/contract/paths';

type Of<N extends EndpointName> = (typeof ENDPOINTS)[N];
type Given<N extends EndpointName> = (ParamsOf<Of<N>> extends Record<string, never>
  ? object
  : { readonly params: ParamsOf<Of<N>> }) & {
  readonly query?: QueryOf<Of<N>>;
} & (BodyOf<Of<N>> extends undefined
    ? object
    : { readonly body: BodyOf<Of<N>> extends Uint8Array ? Blob : BodyOf<Of<N>> });

/** The server refused, or could not be reached; the message is a sentence to be shown. */
export class Refusal extends Error {
  constructor(
    message: string,
    readonly problem?: Problem,
  ) {
    super(message);
  }
}

interface AnyGiven {
  readonly params?: Readonly<Record<string, unknown>>;
  readonly query?: Readonly<Record<string, unknown>>;
  readonly body?: unknown;
}

const bodyOf = (body: unknown): Pick<RequestInit, 'body' | 'headers'> => {
  if (body === undefined) return {};
  if (body instanceof Blob) return { headers: { 'content-type': 'application/octet-stream' }, body };
  return { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) };
};

async function request(method: string, address: string, body: unknown): Promise<unknown> {
  let response: Response;
  try {
    response = await fetch(address, { method, ...bodyOf(body) });
  } catch {
    throw new Refusal('The server does not answer. Nothing was changed.');
  }
  if (response.ok) return response.status === 204 ? undefined : await response.json();
  const problem = (await response.json().catch(() => undefined)) as Problem | undefined;
  throw new Refusal(problem?.detail ?? 'The server gave an answer that makes no sense. Nothing was changed.', problem);
}

/** Asks an endpoint; rejects with a {@link Refusal}. */
export function call<N extends EndpointName>(
  name: N,
  ...[given]: Partial<Given<N>> extends Given<N> ? [Given<N>?] : [Given<N>]
): Promise<ReplyOf<Of<N>>> {
  const { params, query, body } = (given ?? {}) as AnyGiven;
  return request(PATHS[name][0], addressOf(name, params, query), body) as Promise<ReplyOf<Of<N>>>;
}

/** For SWR: what stands at an address that {@link addressOf} made. */
export const fetchAddress = <T>(address: string): Promise<T> => request('GET', address, undefined) as Promise<T>;
