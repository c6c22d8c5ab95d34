/** Letters of many alphabets find a font that has them; what none has is counted. */
import { dirname } from 'node:path';
import { openSync } from 'fontkit';
import { DEJAVU, FIRA, fontsIn, Letters, MAIN_FONT, NO_LETTER, type Run } from './letters';

const folderOf = (name: string): string => dirname(require.resolve(`${name}/package.json`));
const FONTS = fontsIn(folderOf(FIRA), folderOf(DEJAVU));

const runsOf = (text: string, letters = new Letters(FONTS)): Run[] => {
  const set = letters.set(text);
  return typeof set === 'string' ? [{ text: set, font: MAIN_FONT }] : set;
};

test('a text of the main font stays as it is', () => {
  expect(new Letters(FONTS).set('Bow spot 1, 3/47 – “full”\nBård’s')).toBe('Bow spot 1, 3/47 – “full”\nBård’s');
});

test.each([
  'Żółta łódź, Őrsi',
  'Главный проектор № 3',
  'Κύριο φως ὡραῖος',
  'Đèn chính',
  'פנס ראשי',
  'كشاف',
  'Basic → Extended ≤ 5 ✓ ◆',
  'E\u0301clair',
])('%s is set in fonts that have each of its letters, thin and bold', (text) => {
  const letters = new Letters(FONTS);
  const runs = runsOf(text, letters);
  expect(runs.map((run) => run.text).join('')).toBe(text.normalize('NFC'));
  expect(letters.missing).toBe(0);
  for (const { text: part, font } of runs)
    for (const file of Object.values(FONTS[font]!)) {
      const read = openSync(file);
      if (!('characterSet' in read)) throw new Error(file);
      for (const letter of part) expect(read.characterSet).toContain(letter.codePointAt(0));
    }
});

test('a letter that no font has is shown as such and counted', () => {
  const letters = new Letters(FONTS);
  expect(runsOf('舞台 1', letters).map(({ text }) => text)).toEqual([NO_LETTER + NO_LETTER, ' 1']);
  expect(letters.missing).toBe(2);
});
