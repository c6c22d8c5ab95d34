/** ArtSync: releases all ArtDmx received since the last one (Art-Net 4, ArtSync). */
import { ok, type Result } from '../../base/result';
import * as A from './constants';
import { refuseArtNet, newPacket, refuseHeader, type ArtNetRejection } from './header';

export interface ArtSync {
  readonly kind: 'sync';
}

const SYNC_LENGTH = 14;

export function decodeArtSync(bytes: Uint8Array): Result<ArtSync, ArtNetRejection> {
  const reason = refuseHeader(bytes, A.OpSync, SYNC_LENGTH);
  return reason ? refuseArtNet(reason) : ok({ kind: 'sync' });
}

export const encodeArtSync = (): Uint8Array => newPacket(A.OpSync, SYNC_LENGTH);
