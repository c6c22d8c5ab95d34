/** Bringing a file in: the server reads it, we follow how far it is, and write what is chosen. */
import { useEffect, useState } from 'react';
import type { ImportKind, ImportReply } from '@taxiarch/core/contract';
import { call } from './api';
import { whoIsHere } from './person';

const ASK_MS = 200;

export const sendFile = (kind: ImportKind, file: File): Promise<ImportReply> =>
  call('beginImport', { params: { kind }, query: { name: file.name }, body: file });

export const cancelImport = (id: string) => call('cancelImport', { params: { id } });

export const writeImport = async (id: string, keys: readonly string[]) =>
  call('writeImport', { params: { id }, body: { author: await whoIsHere(), keys } });

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
        const next = await call('readImport', { params: { id: first.id } }).catch(() => undefined);
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
