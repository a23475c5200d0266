import fc from 'fast-check';
import { breakLines } from './break-lines';

/** Every character is as wide as any other. */
const width = (line: string) => [...line].length;

test.each<[string, number, string[]]>([
  ['Cone 6 is 1222 °C', 40, ['Cone 6 is 1222 °C']],
  ['Cone 6 is 1222 °C', 10, ['Cone 6 is', '1222 °C']],
  ['one\ntwo\r\nthree', 40, ['one', 'two', 'three']],
  ['a\n\nb', 9, ['a', '', 'b']],
  // UAX 14: after a hyphen (BA), around ideographs (ID), never before what closes (CL) or at what
  // joins (GL).
  ['low-fire glaze', 6, ['low-', 'fire', 'glaze']],
  ['釉薬を塗る', 2, ['釉薬', 'を塗', 'る']],
  ['釉薬。塗る', 2, ['釉', '薬。', '塗る']],
  ['10\u00a0cm wide', 6, ['10\u00a0cm', 'wide']],
  ['1,222.50 °C', 9, ['1,222.50', '°C']],
  // No place to break.
  ['https://kilnbook.example', 9, ['https://', 'kilnbook.', 'example']],
  ['abcdefghij', 4, ['abcd', 'efgh', 'ij']],
  ['', 5, ['']],
])('%j in %i breaks where it may', (text, most, lines) => {
  expect(breakLines(text, most, width)).toEqual(lines);
});

test('characters of several code points are not torn apart', () => {
  const family = '👩‍👩‍👧';
  expect(breakLines(family.repeat(3), 5, width)).toEqual([family, family, family]);
});

test('nothing is lost but space at the end of lines, and no line is wider than it may be', () => {
  fc.assert(
    fc.property(
      fc.string({ unit: fc.constantFrom('a', 'b', ' ', '-', 'ő', '釉', '1', '.'), maxLength: 60 }),
      fc.integer({ min: 1, max: 20 }),
      (text, most) => {
        const lines = breakLines(text, most, width);
        expect(lines.join('').replaceAll(' ', '')).toBe(text.replaceAll(' ', ''));
        for (const line of lines) expect(width(line)).toBeLessThanOrEqual(most);
      },
    ),
  );
});
