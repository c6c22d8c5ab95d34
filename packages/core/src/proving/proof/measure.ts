/** How wide text is on paper, near enough to lay out columns and labels: the fonts themselves are not at hand here. */

/** Widths of letters in parts of the font size, as in a humanist sans serif; wider ones are counted full. */
const NARROW = /[ijl.,:;'’|!·()[\]{}/\\ ]/;
const WIDE = /[mwMW@%—…→–]/;
const widthOf = (letter: string): number => {
  if (NARROW.test(letter)) return 0.3;
  if (WIDE.test(letter)) return 0.92;
  if (/[A-Z0-9_+=&ÄÖÜ#?]/.test(letter)) return 0.66;
  return letter.codePointAt(0)! > 0x2000 ? 1 : 0.57;
};

/** In the unit of the font size. */
export function textWidth(text: string, size: number): number {
  let width = 0;
  for (const letter of text) width += widthOf(letter);
  return width * size;
}

/** As much of a text as fits, with an ellipsis if something is left out. */
export function cut(text: string, width: number, size: number): string {
  if (textWidth(text, size) <= width) return text;
  const letters = [...text];
  while (letters.length > 1 && textWidth(`${letters.join('')}…`, size) > width) letters.pop();
  return `${letters.join('').trimEnd()}…`;
}

/** Text in at most `most` lines, broken between words; what does not fit ends in an ellipsis. */
export function wrap(text: string, width: number, size: number, most: number): string[] {
  const lines: string[] = [];
  let line = '';
  const words = text.split(/\s+/).filter(Boolean);
  for (const [i, word] of words.entries()) {
    const longer = line === '' ? word : `${line} ${word}`;
    if (textWidth(longer, size) <= width) {
      line = longer;
      continue;
    }
    if (line !== '') lines.push(line);
    line = word;
    if (lines.length < most) continue;
    // No room for another line: the last one says that something is missing.
    lines[most - 1] = cut(`${lines[most - 1]!} ${words.slice(i).join(' ')}`, width, size);
    return lines;
  }
  if (line !== '') lines.push(line);
  return lines.map((one) => cut(one, width, size));
}

/**
 * Widths of a table’s columns, in the unit of the font size: no word is broken as long as all longest words fit side by
 * side, and what is left goes to those that need more.
 */
export function columnWidths(
  rows: readonly (readonly string[])[],
  available: number,
  size: number,
  /** Empty space beside the text of a cell */
  padding: number,
): number[] {
  const columns = Math.max(0, ...rows.map((row) => row.length));
  const measured = Array.from({ length: columns }, (_, column) => {
    let [word, whole] = [0, 0];
    for (const row of rows) {
      const text = row[column] ?? '';
      whole = Math.max(whole, ...text.split('\n').map((line) => textWidth(line, size)));
      for (const one of text.split(/\s+/)) word = Math.max(word, textWidth(one, size));
    }
    return { word, whole };
  });
  const room = available - columns * padding;
  const words = measured.reduce((sum, { word }) => sum + word, 0);
  const wholes = measured.reduce((sum, { whole }) => sum + whole, 0);
  if (wholes <= room) return measured.map(({ whole }) => whole + (room - wholes) / columns);
  if (words >= room) return measured.map(({ word }) => (word / words) * room);
  return measured.map(({ word, whole }) => word + ((whole - word) / (wholes - words)) * (room - words));
}

/** The largest font size at which no word of a table is broken, from `size` down to `least`. */
export function tableSize(
  rows: readonly (readonly string[])[],
  available: number,
  size: number,
  least: number,
  padding: number,
): number {
  const columns = Math.max(0, ...rows.map((row) => row.length));
  const longest = Array.from({ length: columns }, (_, column) =>
    Math.max(0, ...rows.flatMap((row) => (row[column] ?? '').split(/\s+/).map((word) => textWidth(word, 1)))),
  ).reduce((sum, one) => sum + one, 0);
  const fits = (available - columns * padding) / Math.max(longest, 1e-9);
  return Math.max(least, Math.min(size, Math.floor(fits * 2) / 2));
}
