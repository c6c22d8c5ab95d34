/** The record of proof and labels: drawn up, signed, checked. */
import type { BodyOf, ENDPOINTS, Problem } from '@taxiarch/core/whole/contract';
import { PATHS, addressOf } from '@taxiarch/core/whole/contract/paths';
import type { Proof } from '@taxiarch/core/show/records';
import { Refusal, call } from './api';

type Files = 'draftProof' | 'exportLabels';

/** A file that the server makes, offered to be saved. */
export async function saveFile<N extends Files>(name: N, body: BodyOf<(typeof ENDPOINTS)[N]>): Promise<void> {
  let response: Response;
  try {
    response = await fetch(addressOf(name), {
      method: PATHS[name][0],
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  } catch {
    throw new Refusal('The server does not answer. Nothing was made.');
  }
  if (!response.ok) {
    const problem = (await response.json().catch(() => undefined)) as Problem | undefined;
    throw new Refusal(problem?.detail ?? 'The server gave an answer that makes no sense.', problem);
  }
  const called = /filename="?([^";]+)"?/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? 'file';
  const link = document.createElement('a');
  link.href = URL.createObjectURL(await response.blob());
  link.download = called;
  link.click();
  // The browser takes it up in its own time.
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
}

export const signProof = (body: BodyOf<(typeof ENDPOINTS)['signProof']>): Promise<Proof> => call('signProof', { body });

export const checkFile = (file: Blob) => call('checkProof', { body: file });

export const proofAddress = (proof: string, format: 'pdf' | 'html' | 'csv' | 'json'): string =>
  addressOf('exportProof', { proof, format });
