/**
 * Tables of every usual kind as rows of text: XLSX and ODS, CSV and TSV in any encoding; and written as XLSX and ODS.
 * Apart from the other formats, because what reads them is large and no browser needs it.
 */
export { readSheets } from './read';
export { writeSheet } from './write';
