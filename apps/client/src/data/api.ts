/** Requests to the server; what it refuses comes back as a sentence. */
import type { Problem } from '@taxiarch/core/contract';

/** The server refused, or could not be reached; the message is a sentence to be shown. */
export class Refusal extends Error {
  constructor(
    message: string,
    readonly problem?: Problem,
  ) {
    super(message);
  }
}

async function request<T>(method: string, path: string, body?: unknown): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      ...(body !== undefined && { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    });
  } catch {
    throw new Refusal('The server does not answer. Nothing was changed.');
  }
  if (response.ok) return (await response.json()) as T;
  const problem = (await response.json().catch(() => undefined)) as Problem | undefined;
  throw new Refusal(problem?.detail ?? 'The server gave an answer that makes no sense. Nothing was changed.', problem);
}

export const get = <T>(path: string): Promise<T> => request('GET', path);
export const post = <T>(path: string, body: unknown): Promise<T> => request('POST', path, body);
export const patch = <T>(path: string, body: unknown): Promise<T> => request('PATCH', path, body);
