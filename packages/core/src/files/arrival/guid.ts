/** Identifiers as open formats want them: 8-4-4-4-12 hexadecimal digits. */

const GUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

export const isGuid = (text: string): boolean => GUID.test(text);

/** The id itself if it has the form, else one made from it, always the same (FNV-1a, four times 32 bits). */
export function guidOf(id: string): string {
  if (isGuid(id)) return id.toLowerCase();
  let digits = '';
  for (let part = 0; part < 4; part += 1) {
    let hash = (0x811c9dc5 ^ (part * 0x9e3779b1)) >>> 0;
    for (const letter of `${part}${id}`) hash = Math.imul(hash ^ letter.codePointAt(0)!, 0x01000193) >>> 0;
    digits += hash.toString(16).padStart(8, '0');
  }
  return digits.replace(/^(.{8})(.{4}).(.{3}).(.{3})(.{12}).*$/, '$1-$2-4$3-8$4-$5');
}
