import { presetsFor } from './export-presets';

const frameRate = { num: 25, den: 1 };

test('targets of the project’s shape are offered, never larger than the project and at its rate', () => {
  const wide = presetsFor({ width: 1920, height: 1080, frameRate });
  expect(wide.map((p) => p.id)).toEqual(['web', 'course', 'deck', 'archive']);
  expect(wide.find((p) => p.id === 'archive')).toMatchObject({
    size: { width: 1920, height: 1080 },
    quality: 'high',
    frameRate,
  });
  expect(wide.find((p) => p.id === 'deck')).toMatchObject({ size: { width: 1280, height: 720 } });
  expect(presetsFor({ width: 1080, height: 1920, frameRate }).map((p) => p.id)).toEqual(['phone']);
  expect(presetsFor({ width: 1000, height: 700, frameRate })).toEqual([]);
});
