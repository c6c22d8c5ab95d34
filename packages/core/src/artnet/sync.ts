/** ArtSync: releases all ArtDmx received since the last one (Art-Net 4, ArtSync). */
import { accepted, rejected, type Decoded } from '../bytes';
import * as A from './constants';
import { newPacket, refuseHeader, type ArtNetRejection } from './header';

export interface ArtSync {
  readonly kind: 'sync';
}

const SYNC_LENGTH = 14;

export function decodeArtSync(bytes: Uint8Array): Decoded<ArtSync, ArtNetRejection> {
  const reason = refuseHeader(bytes, A.OpSync, SYNC_LENGTH);
  return reason ? rejected(reason) : accepted({ kind: 'sync' });
}

export const encodeArtSync = (): Uint8Array => newPacket(A.OpSync, SYNC_LENGTH);
