/** Text from elsewhere, as a record can keep it. */

/** Longest name of a record */
const MOST = 120;

/** Characters that no database keeps, and halves of characters */
const NONE = /\0|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;

/** Without spaces around it and what is no character; the rest of what is too long is left out. */
export function fitted(text: string, most = MOST): string {
  const whole = text.replace(NONE, '').trim();
  return whole.length <= most
    ? whole
    : `${whole
        .slice(0, most - 1)
        .replace(/[\ud800-\udbff]$/, '')
        .trim()}…`;
}
