import { contrastRatio, readability } from './contrast';

test('the contrast of colours is that of the standard, in either order', () => {
  expect(contrastRatio('#000000', '#ffffff')).toBeCloseTo(21, 6);
  expect(contrastRatio('#123456', '#123456')).toBe(1);
  // The lightest grey that is read easily on white, and the next one.
  expect(contrastRatio('#767676', '#ffffff')).toBeCloseTo(4.54, 2);
  expect(contrastRatio('#ffffff', '#777777')).toBeCloseTo(4.48, 2);
});

test('words that are hard to read are told, with a figure that is never rounded up', () => {
  expect(readability({ fill: '#8e3f66', ink: '#ffffff' })).toBeNull();
  expect(readability({ fill: '#ffffff', ink: '#777777' })).toMatch(/ 4\.4 to 1 only/);
});
