import fc from 'fast-check';
import { breakLines } from './break-lines';
import { isRightToLeft, setLines } from './paragraphs';

const HEBREW = 'שלום';
const ARABIC = 'مرحبا';
const each = (line: string) => line.length;

// UAX 9, rules P2 and P3: the first letter with a direction decides; isolates are passed over.
test.each<[string, boolean]>([
  ['Kiln', false],
  [HEBREW, true],
  [ARABIC, true],
  ['', false],
  ['120 °C (3)', false],
  [`120 ${HEBREW} Kilnbook`, true],
  [`Kilnbook ${HEBREW}`, false],
  [`“${ARABIC}” 12`, true],
  [`\u2067${HEBREW}\u2069 Kiln`, false],
  [`\u2066Kiln\u2069 ${HEBREW}`, true],
  ['\u200f12', true],
])('%j reads from right to left: %s', (text, expected) =>
  expect(isRightToLeft(text)).toBe(expected),
);

test('each paragraph has its own direction, and all of its lines have that', () => {
  const lines = setLines(`Kiln log\n${HEBREW} Kilnbook 12\r\nnow`, 11, each);
  expect(lines.map(({ rightToLeft }) => rightToLeft)).toEqual([false, true, true, false]);
  // A line that begins with Latin letters goes by its paragraph.
  expect(lines[2]).toEqual({ text: 'Kilnbook 12', rightToLeft: true });
});

test('in any text lines are those that are broken without directions', () => {
  const words = fc.array(
    fc.constantFrom('Kiln', HEBREW, ARABIC, '12', '\n', '\u2029', ' ', '—', 'well-known', '(', '.'),
    { maxLength: 30 },
  );
  fc.assert(
    fc.property(words, fc.integer({ min: 2, max: 30 }), (all, most) => {
      const text = all.join(' ');
      expect(setLines(text, most, each).map((line) => line.text)).toEqual(
        breakLines(text, most, each),
      );
    }),
  );
});
