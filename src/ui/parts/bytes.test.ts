import { bytesInWords } from './bytes';

test.each([
  [0, '0 kB'],
  [700, '1 kB'],
  [25_400, '25 kB'],
  [999_999, '1,000 kB'],
  [1_000_000, '1 MB'],
  [23_242_147, '23.2 MB'],
  [83_481_149_440, '83.5 GB'],
  [5e15, '5,000 TB'],
])('%d bytes are told as %s', (bytes, words) => {
  expect(bytesInWords(bytes)).toBe(words);
});
