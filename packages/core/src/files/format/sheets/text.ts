/** Text in whichever encoding it was written. */
import iconv from 'iconv-lite';

const NUL_SHARE = 0.2;

/** UTF-16 without a mark at its begin: every other byte of plain text is nothing. */
function wide(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | undefined {
  const most = Math.min(bytes.length, 4000);
  let [even, odd] = [0, 0];
  for (let i = 0; i < most; i += 1)
    if (bytes[i] === 0) {
      if (i % 2 === 0) even += 1;
      else odd += 1;
    }
  if (odd > most * NUL_SHARE && odd > even * 4) return 'utf-16le';
  return even > most * NUL_SHARE && even > odd * 4 ? 'utf-16be' : undefined;
}

/** UTF-8 or UTF-16 where it is that, else the code page of western Europe (CP1252); undefined if it is no text. */
export function decodeText(bytes: Uint8Array): string | undefined {
  const marked =
    bytes[0] === 0xff && bytes[1] === 0xfe
      ? 'utf-16le'
      : bytes[0] === 0xfe && bytes[1] === 0xff
        ? 'utf-16be'
        : wide(bytes);
  if (marked) return new TextDecoder(marked).decode(bytes);
  if (bytes.includes(0)) return undefined;
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    // Node's own decoder of this name reads Latin-1: “ ” € – become control characters.
    return iconv.decode(bytes as Buffer, 'windows-1252');
  }
}
