import fc from 'fast-check';
import { isKey } from './keys';
import { isAccount, isCard, isPhone } from './numbers';
import { privateIn, type PrivateKind } from './patterns';

const kinds = (line: string, words?: string[]): [PrivateKind, string][] =>
  privateIn(line, words).map(({ kind, from, to }) => [kind, line.slice(from, to)]);

test('numbers of cards and accounts are told by their check digits', () => {
  // The example of ISO/IEC 7812-1, annex B, and examples of the ISO 13616 registry.
  expect(isCard('4992739871600000')).toBe(false);
  expect(isCard('4012888888881881')).toBe(true);
  expect(isCard('4012888888881882')).toBe(false);
  expect(isCard('0000000000000000')).toBe(false);
  expect(isAccount('GB29 NWBK 6016 1331 9268 19')).toBe(true);
  expect(isAccount('DE89370400440532013000')).toBe(true);
  expect(isAccount('DE89370400440532013001')).toBe(false);
});

test('a check digit finds every single wrong digit', () => {
  const digits = '4012888888881881';
  fc.assert(
    fc.property(fc.nat(15), fc.integer({ min: 1, max: 9 }), (at, by) => {
      const wrong = String((Number(digits[at]) + by) % 10);
      expect(isCard(digits.slice(0, at) + wrong + digits.slice(at + 1))).toBe(false);
    }),
  );
});

test.each<[string, [PrivateKind, string][]]>([
  ['Write to ilse.varga@kilnbook.example today', [['email', 'ilse.varga@kilnbook.example']]],
  ['hanno. quill5 @kilnbook.example', [['email', 'hanno. quill5 @kilnbook.example']]],
  ['oona.feld9 @kilnbook.example', [['email', 'oona.feld9 @kilnbook.example']]],
  [
    'Call +00 555 0109 or (020) 7946 0018',
    [
      ['phone', '+00 555 0109'],
      ['phone', '(020) 7946 0018'],
    ],
  ],
  ['555-0112', [['phone', '555-0112']]],
  ['9555 010 117', [['phone', '9555 010 117']]],
  ['12 340 118 of 1 204 500 118', []],
  ['Card 4012 8888 8888 1881 exp', [['card', '4012 8888 8888 1881']]],
  ['IBAN DE89 3704 0044 0532 0130 00', [['account', 'DE89 3704 0044 0532 0130 00']]],
  ['DE89 3704 0044 0582 0130 00', [['account', 'DE89 3704 0044 0582 0130 00']]],
  ['token: kb_live_9aF2xQ7LmZ04TtRw8VbN', [['key', 'kb_live_9aF2xQ7LmZ04TtRw8VbN']]],
  ['kb_LKoemork7TJJcewqY mezd9g85a', [['key', 'kb_LKoemork7TJJcewqY mezd9g85a']]],
  ['Password: glaze77', [['key', 'glaze77']]],
  [
    'eyJhbGciOiJub25lIn0.eyJzdWIiOiJraWxuIn0.',
    [['key', 'eyJhbGciOiJub25lIn0.eyJzdWIiOiJraWxuIn0.']],
  ],
  ['Kiln at Northgate', []],
  ['3 shelves @ 12 each', []],
  ['Thanks @noon today', []],
  ['Saved 2026-11-28 14:05:33', []],
  ['Version 12.4.118.2301', []],
  ['Cone 6, 1240 pieces, 18.50 a kilo', []],
  ['https://kilnbook.example/projects/north/settings', []],
  ['src/kiln/controllers/firing-schedule.controller.ts', []],
  ['ReallyLongNameOfSomeFunctionInCode', []],
])('what is private in “%s”', (line, expected) => {
  expect(kinds(line)).toEqual(expected);
});

test('words of one’s own are found in any writing, and as they are misread', () => {
  expect(kinds('Shown to Hanno QUILL and others', ['hanno quill'])).toEqual([
    ['word', 'Hanno QUILL'],
  ]);
  expect(kinds('Hann0 Qui1l', ['Hanno Quill'])).toEqual([['word', 'Hann0 Qui1l']]);
  expect(kinds('anything', ['', ' '])).toEqual([]);
});

test('parts never overlap, lie within the line, and nothing throws, whatever is read', () => {
  fc.assert(
    fc.property(
      fc.string({ unit: 'grapheme', maxLength: 200 }),
      fc.string({ maxLength: 6 }),
      (line, word) => {
        let last = 0;
        for (const { from, to } of privateIn(line, [word])) {
          expect(from).toBeGreaterThanOrEqual(last);
          expect(to).toBeGreaterThan(from);
          expect(to).toBeLessThanOrEqual(line.length);
          last = to;
        }
      },
    ),
  );
});

test('ordinary numbers and words are no telephones and no keys', () => {
  for (const text of ['1027', '2026-11-28', '10.0.0.12', '1999 - 2004', '12 340 118'])
    expect(isPhone(text)).toBe(false);
  for (const text of ['internationalization', 'firing_schedule_for_cone_six', 'aaaaaaaaaaaaaaaa1'])
    expect(isKey(text)).toBe(false);
});
