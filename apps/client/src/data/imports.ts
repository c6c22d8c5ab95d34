/** Bringing a file in: the server reads it, we follow how far it is, and write what is chosen. */
import { useEffect, useState } from 'react';
import type { ImportReply, ImportWritten, Problem } from '@taxiarch/core/contract';
import { Refusal, get, post } from './api';
import { personName } from './kept';

const ASK_MS = 200;

export async function sendFile(kind: string, file: File): Promise<ImportReply> {
  const response = await fetch(`/api/import/${kind}?name=${encodeURIComponent(file.name)}`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: file,
  }).catch(() => {
    throw new Refusal('The server does not answer. Nothing was changed.');
  });
  if (response.ok) return (await response.json()) as ImportReply;
  throw new Refusal(((await response.json()) as Problem).detail);
}

export const cancelImport = (id: string) => fetch(`/api/import/${id}`, { method: 'DELETE' });

export const writeImport = (id: string, keys: readonly string[]) =>
  post<ImportWritten>(`/api/import/${id}/write`, { author: personName.read(), keys });

/** Follows a file until it is read or refused. */
export function useImport(first: ImportReply | undefined): ImportReply | undefined {
  const [reply, setReply] = useState(first);
  useEffect(() => {
    setReply(first);
    if (first?.state !== 'working') return;
    let over = false;
    const ask = async () => {
      while (!over) {
        await new Promise((done) => setTimeout(done, ASK_MS));
        const next = await get<ImportReply>(`/api/import/${first.id}`).catch(() => undefined);
        if (over || !next) return;
        setReply(next);
        if (next.state !== 'working') return;
      }
    };
    void ask();
    return () => {
      over = true;
    };
  }, [first]);
  return reply;
}
