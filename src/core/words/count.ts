const segmenter = new Intl.Segmenter(undefined, { granularity: 'word' });
const counted = new Map<string, number>();
const KEPT = 5000;
/**
 * Scripts that write words without spaces between them: Thai, Lao, Khmer, Burmese, Chinese,
 * Japanese.
 */
const UNSPACED =
  /[\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]/u;
const SPACED_WORD = /[\p{L}\p{N}][\p{L}\p{N}\p{M}'’\-.,]*/gu;

/**
 * Number of words that are spoken in a text, in any script. Where words are not spaced they are
 * found by the host's dictionary (Unicode TR 29 with its tailorings).
 */
export function countWords(text: string): number {
  const known = counted.get(text);
  if (known !== undefined) return known;
  let count = 0;
  if (UNSPACED.test(text))
    for (const { isWordLike } of segmenter.segment(text)) count += isWordLike ? 1 : 0;
  else count = text.match(SPACED_WORD)?.length ?? 0;
  if (counted.size >= KEPT) counted.clear();
  counted.set(text, count);
  return count;
}

/** Seconds that a text takes to read aloud at a speed in words a minute. */
export const readingSeconds = (text: string, wordsPerMinute: number): number =>
  (countWords(text) / wordsPerMinute) * 60;
