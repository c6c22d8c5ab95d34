/** Text in those of our fonts that have its letters: the main one, the same in other alphabets, and one that has most others. */
import { join } from 'node:path';
import { openSync } from 'fontkit';

export const FIRA = '@fontsource/fira-sans';
export const DEJAVU = 'dejavu-fonts-ttf';

/** Files by name of font */
export type Fonts = Readonly<Record<string, { readonly normal: string; readonly bold: string }>>;

/** Our fonts in the order in which they are asked for a letter, from the folders of their packages. */
export function fontsIn(fira: string, dejavu: string): Fonts {
  const alphabet = (name: string) => {
    const weight = (one: number) => join(fira, `files/fira-sans-${name}-${one}-normal.woff`);
    return { normal: weight(400), bold: weight(600) };
  };
  const others = ['latin-ext', 'cyrillic', 'greek', 'vietnamese', 'cyrillic-ext', 'greek-ext'];
  return {
    [MAIN_FONT]: alphabet('latin'),
    ...Object.fromEntries(others.map((name) => [`${MAIN_FONT} ${name}`, alphabet(name)])),
    [LAST_FONT]: { normal: join(dejavu, 'ttf/DejaVuSans.ttf'), bold: join(dejavu, 'ttf/DejaVuSans-Bold.ttf') },
  };
}

export const MAIN_FONT = 'Fira Sans';
const LAST_FONT = 'DejaVu Sans';

/** Stands for a letter that none of our fonts has. */
export const NO_LETTER = '□';

export interface Run {
  text: string;
  readonly font: string;
}

function lettersOf(file: string): readonly number[] {
  const read = openSync(file);
  return 'characterSet' in read ? read.characterSet : [];
}

export class Letters {
  private readonly sets = new Map<string, ReadonlySet<number>>();
  /** Letters for which {@link NO_LETTER} stands so far */
  missing = 0;

  constructor(private readonly fonts: Fonts) {}

  private has(font: string, letter: number): boolean {
    let set = this.sets.get(font);
    if (!set) {
      const [normal, bold] = [lettersOf(this.fonts[font]!.normal), new Set(lettersOf(this.fonts[font]!.bold))];
      set = new Set(normal.filter((one) => bold.has(one)));
      this.sets.set(font, set);
    }
    return set.has(letter);
  }

  /** The text as it is where the main font has all of it, else in runs of one font each. */
  set(text: string): string | Run[] {
    const whole = text.normalize('NFC');
    const runs: Run[] = [];
    for (const letter of whole) {
      const last = runs.at(-1);
      const found =
        letter === '\n'
          ? (last?.font ?? MAIN_FONT)
          : Object.keys(this.fonts).find((name) => this.has(name, letter.codePointAt(0)!));
      if (found === undefined) this.missing += 1;
      const [shown, font] = found === undefined ? [NO_LETTER, LAST_FONT] : [letter, found];
      if (last?.font === font) last.text += shown;
      else runs.push({ text: shown, font });
    }
    return runs.every(({ font }) => font === MAIN_FONT) ? whole : runs;
  }
}
