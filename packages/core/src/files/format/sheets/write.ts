/** Tables out as XLSX and ODS. Every text is written as text, so that no cell is ever taken for a formula. */
import { utils, write } from '@e965/xlsx';

type SheetForm = 'xlsx' | 'ods';

export function writeSheet(
  heads: readonly string[],
  rows: readonly (readonly (string | number)[])[],
  name: string,
  form: SheetForm,
): Uint8Array {
  const sheet = utils.aoa_to_sheet([[...heads], ...rows.map((row) => [...row])]);
  sheet['!cols'] = heads.map((head, i) => ({
    wch: Math.min(40, Math.max(head.length, ...rows.slice(0, 200).map((row) => String(row[i] ?? '').length)) + 2),
  }));
  const book = utils.book_new();
  utils.book_append_sheet(book, sheet, name.replace(/[\\/?*[\]:]/g, ' ').slice(0, 31) || 'Table');
  return new Uint8Array(write(book, { type: 'array', bookType: form, compression: true }) as ArrayBuffer);
}
