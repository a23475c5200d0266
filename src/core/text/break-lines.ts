import LineBreaker from 'linebreak';

/** The pieces of a text between which a line may end, by the rules of UAX 14. */
function pieces(text: string): { readonly text: string; readonly ends: boolean }[] {
  const found: { text: string; ends: boolean }[] = [];
  const breaker = new LineBreaker(text);
  let from = 0;
  for (let next = breaker.nextBreak(); next; next = breaker.nextBreak()) {
    found.push({ text: text.slice(from, next.position), ends: next.required });
    from = next.position;
  }
  return found;
}

const graphemes = new Intl.Segmenter(undefined, { granularity: 'grapheme' });

/** A piece that is wider than a line by itself, cut between what a reader takes for characters. */
function cutWide(text: string, most: number, width: (line: string) => number): string[] {
  const parts: string[] = [];
  let part = '';
  for (const { segment } of graphemes.segment(text)) {
    if (part && width((part + segment).trimEnd()) > most) {
      parts.push(part);
      part = '';
    }
    part += segment;
  }
  return [...parts, part];
}

/**
 * Breaks a text into lines where the Unicode line breaking algorithm (UAX 14) allows it, so that no
 * line is wider than `most`; its own line breaks stay. What has no place to break, such as an
 * address, is cut between characters. Space at the end of a line is not measured and not kept.
 *
 * @param width width of a line, in the unit of `most`
 */
export function breakLines(text: string, most: number, width: (line: string) => number): string[] {
  const lines: string[] = [];
  let line = '';
  const end = () => {
    lines.push(line.trimEnd());
    line = '';
  };
  for (const piece of pieces(text)) {
    if (line && width((line + piece.text).trimEnd()) > most) end();
    const parts =
      width(piece.text.trimEnd()) > most ? cutWide(piece.text, most, width) : [piece.text];
    parts.forEach((part, i) => {
      if (i) end();
      line += part;
    });
    if (piece.ends && /[\n\r\u000b\u000c\u0085\u2028\u2029]$/.test(piece.text)) end();
  }
  // A line break at the very end begins no line.
  end();
  return lines;
}
