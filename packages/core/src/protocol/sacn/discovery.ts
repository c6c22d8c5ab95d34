/** The E1.31 universe discovery packet (ANSI E1.31-2018, 6.4 and clause 8). */
import { SACN_LAST } from '../../base/address';
import { readText, readU16, readU32, writeText, writeU16, writeU32 } from '../../base/bytes';
import { ok, type Result } from '../../base/result';
import * as C from './constants';
import { refuseSacn, layerLength, writeFlagsAndLength, writeRoot, type SacnRejection } from './root';

export interface SacnDiscovery {
  readonly kind: 'discovery';
  readonly cid: Uint8Array;
  readonly sourceName: string;
  /** This page, from 0 */
  readonly page: number;
  /** The last page, from 0 */
  readonly lastPage: number;
  /** Universes the source sends, rising, at most 512 a page */
  readonly universes: readonly number[];
}

/** A packet whose framing layer says that it lists universes. */
export function discoveryIn(bytes: Uint8Array): Result<SacnDiscovery, SacnRejection> {
  if (bytes.length < C.DISCOVERY_HEADER_LENGTH) return refuseSacn('too-short');
  if (readU32(bytes, 114) !== C.VECTOR_UNIVERSE_DISCOVERY_UNIVERSE_LIST) return refuseSacn('unknown-framing-vector');
  const listLength = layerLength(bytes, 112) - (C.DISCOVERY_HEADER_LENGTH - 112);
  if (
    listLength < 0 ||
    C.DISCOVERY_HEADER_LENGTH + listLength !== bytes.length ||
    layerLength(bytes, 38) !== bytes.length - 38
  )
    return refuseSacn('wrong-length');
  if (listLength % 2 !== 0 || listLength > C.DISCOVERY_PAGE_SIZE * 2) return refuseSacn('bad-discovery-list');
  const page = bytes[118]!;
  const lastPage = bytes[119]!;
  if (page > lastPage) return refuseSacn('bad-discovery-list');
  const universes: number[] = [];
  for (let at = 0; at < listLength; at += 2) {
    const universe = readU16(bytes, C.DISCOVERY_HEADER_LENGTH + at);
    // Rising from 1 on
    const before = universes[universes.length - 1] ?? 0;
    if (universe <= before || universe > SACN_LAST) return refuseSacn('bad-discovery-list');
    universes.push(universe);
  }
  return ok({
    kind: 'discovery',
    cid: bytes.slice(22, 38),
    sourceName: readText(bytes, 44, C.SOURCE_NAME_LENGTH),
    page,
    lastPage,
    universes,
  });
}

export function encodeDiscovery(message: Omit<SacnDiscovery, 'kind'>): Uint8Array {
  const universes = message.universes.slice(0, C.DISCOVERY_PAGE_SIZE);
  const bytes = new Uint8Array(C.DISCOVERY_HEADER_LENGTH + universes.length * 2);
  writeRoot(bytes, C.VECTOR_ROOT_E131_EXTENDED, message.cid);
  writeFlagsAndLength(bytes, 38);
  writeU32(bytes, 40, C.VECTOR_E131_EXTENDED_DISCOVERY);
  writeText(bytes, 44, C.SOURCE_NAME_LENGTH, message.sourceName);
  writeFlagsAndLength(bytes, 112);
  writeU32(bytes, 114, C.VECTOR_UNIVERSE_DISCOVERY_UNIVERSE_LIST);
  bytes[118] = message.page;
  bytes[119] = message.lastPage;
  universes.forEach((universe, i) => writeU16(bytes, C.DISCOVERY_HEADER_LENGTH + i * 2, universe));
  return bytes;
}

/** All pages that announce `universes` (any order, repeats allowed). */
export function encodeDiscoveryPages(cid: Uint8Array, sourceName: string, universes: readonly number[]): Uint8Array[] {
  const sorted = [...new Set(universes)].sort((a, b) => a - b);
  const pages = Math.max(1, Math.ceil(sorted.length / C.DISCOVERY_PAGE_SIZE));
  return Array.from({ length: pages }, (_, page) =>
    encodeDiscovery({
      cid,
      sourceName,
      page,
      lastPage: pages - 1,
      universes: sorted.slice(page * C.DISCOVERY_PAGE_SIZE, (page + 1) * C.DISCOVERY_PAGE_SIZE),
    }),
  );
}
