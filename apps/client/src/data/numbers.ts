/** Reading what people type into small fields. */

/** A whole number that somebody typed; undefined if it is none. */
export const wholeFrom = (text: string): number | undefined =>
  /^-?\d{1,10}$/.test(text.trim()) ? Number(text.trim()) : undefined;

/** A number of metres, with a comma or a point; undefined if it is none. */
export const metresFrom = (text: string): number | undefined => {
  const number = Number(text.trim().replace(',', '.').replace('−', '-'));
  return text.trim() === '' || !Number.isFinite(number) ? undefined : number;
};

/** A random UUID (RFC 9562, version 4), made here: browsers give their own only to pages that came by HTTPS. */
export function newId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = (bytes[6]! & 0x0f) | 0x40;
  bytes[8] = (bytes[8]! & 0x3f) | 0x80;
  const text = [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('');
  return text.replace(/^(.{8})(.{4})(.{4})(.{4})/, '$1-$2-$3-$4-');
}
