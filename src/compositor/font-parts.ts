/*
 * The typeface of all words on the picture, in the parts that it ships in. A canvas takes what one
 * part does not have from the next, so that words look alike wherever they are drawn, whatever a
 * machine has. The parts of scripts with thousands of signs are fetched when one is wanted.
 */

/** A part that is always at hand: a file for a range of characters. */
export interface FontPart {
  /** Hosts register the part under this name. */
  readonly family: string;
  /** Its file's name, without what all have in common. */
  readonly subset: string;
}

export const PICTURE_FONTS: readonly FontPart[] = [
  { family: 'Atkinson Hyperlegible Next Variable', subset: 'latin' },
  { family: 'Atkinson Hyperlegible Next Extended', subset: 'latin-ext' },
  { family: 'Picture Cyrillic', subset: 'cyrillic' },
  { family: 'Picture Greek', subset: 'greek' },
  { family: 'Picture Devanagari', subset: 'devanagari' },
  { family: 'Picture Hebrew', subset: 'hebrew' },
  { family: 'Picture Arabic', subset: 'arabic' },
  { family: 'Picture Thai', subset: 'thai' },
];

const quoted = (parts: readonly FontPart[]) => parts.map(({ family }) => `"${family}"`);

/** The typeface for the `font` of a canvas, for words of the scripts that are always at hand. */
export const PICTURE_FAMILY = quoted(PICTURE_FONTS).join(', ');

/** Scripts of which the parts are fetched when they are wanted. */
export type LateScript = 'chinese' | 'japanese' | 'korean' | 'emoji';

/** The parts of a script, as they are listed beside the files. */
export type LateParts = Readonly<
  /** The characters of each part by its subset, as in a style sheet: `U+4e00-4e05,U+4e08`. */
  Record<LateScript, Readonly<Record<string, string>>>
>;

const readRanges = (text: string): (readonly [from: number, to: number])[] =>
  text.split(',').map((range) => {
    const [from, to] = range.replace(/^U\+/i, '').split('-');
    return [parseInt(from!, 16), parseInt(to ?? from!, 16)];
  });

const HANGUL = /\p{Script=Hangul}/u;
const KANA = /[\p{Script=Hiragana}\p{Script=Katakana}]/u;
/** Signs that stand in Chinese, Japanese and Korean text: Han, punctuation, wide letters. */
const EAST = /[\p{Script=Han}\u3000-\u303f\u30fb\u30fc\uff00-\uffef]/u;
/** What is drawn in colours: pictures by themselves, those that are asked for, keys, flags. */
const EMOJI =
  /\p{Emoji_Presentation}|\p{Extended_Pictographic}\ufe0f|\u20e3|\p{Regional_Indicator}/u;

/** Han signs differ by language; a text with kana is Japanese, one with Hangul alone Korean. */
const eastOf = (text: string): LateScript =>
  KANA.test(text) ? 'japanese' : HANGUL.test(text) ? 'korean' : 'chinese';

/** Which parts of the typeface words need. */
export class PictureFonts {
  private readonly known = new Map<string, readonly FontPart[]>();
  private readonly parts: Readonly<
    Record<LateScript, readonly (FontPart & { ranges: (readonly [number, number])[] })[]>
  >;

  constructor(late: LateParts) {
    const partsOf = (script: LateScript) =>
      Object.entries(late[script]).map(([subset, ranges]) => ({
        family: `Picture ${script} ${subset}`,
        subset: `${script}-${subset}`,
        ranges: readRanges(ranges),
      }));
    this.parts = {
      chinese: partsOf('chinese'),
      japanese: partsOf('japanese'),
      korean: partsOf('korean'),
      emoji: partsOf('emoji'),
    };
  }

  /** The parts that words need and that are not always at hand. */
  late(text: string): readonly FontPart[] {
    // Nearly all texts have nothing but letters of the first parts.
    if (!EAST.test(text) && !KANA.test(text) && !HANGUL.test(text) && !EMOJI.test(text)) return [];
    const found = this.known.get(text) ?? this.find(text);
    this.known.set(text, found);
    return found;
  }

  /** The typeface for the `font` of a canvas that draws these words. */
  family(text: string): string {
    const late = this.late(text);
    return late.length ? [PICTURE_FAMILY, ...quoted(late)].join(', ') : PICTURE_FAMILY;
  }

  private find(text: string): readonly FontPart[] {
    const east = eastOf(text);
    // Other scripts have pictures too, in one colour: what is to be in colours is looked up first.
    const parts = new Set<FontPart>(EMOJI.test(text) ? this.parts.emoji : []);
    for (const sign of text) {
      const script = HANGUL.test(sign)
        ? 'korean'
        : EAST.test(sign) || KANA.test(sign)
          ? east
          : null;
      const code = sign.codePointAt(0)!;
      const part =
        script &&
        this.parts[script].find(({ ranges }) => ranges.some(([a, b]) => code >= a && code <= b));
      if (part) parts.add(part);
    }
    return [...parts].map(({ family, subset }) => ({ family, subset }));
  }
}
