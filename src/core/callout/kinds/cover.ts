import type { RegionEffect } from '../../frame/plan';
import { cornersOf, intersect, padded, rectAround } from '../../scale/rect';
import { FootageRect, oneOf } from '../../schema/parts';
import { colorSetting, numberSetting } from '../../schema/setting';
import { coverSchema, type CalloutKind } from '../kind';
import { areaAt, areaHandles, withAreaHandle } from './area';

/** Blurred, in coarse blocks, or painted over. Only the last leaves nothing to guess. */
const WAYS = ['blur', 'mosaic', 'solid'] as const;

const schema = coverSchema('cover', {
  rect: FootageRect,
  way: oneOf(WAYS, { title: 'Style', labels: ['Blur', 'Mosaic', 'Solid'], default: 'blur' }),
  strength: numberSetting({
    label: 'Strength',
    description: 'Blur radius, or half the side of a mosaic’s blocks.',
    unit: 'px',
    min: 2,
    max: 100,
    step: 1,
    fallback: 24,
    usual: [4, 100],
  }),
  color: { ...colorSetting('Colour', '#1e2a32'), description: 'Of a solid cover.' },
});

/** Hides part of what it stands on. */
export const cover: CalloutKind<typeof schema> = {
  schema,
  name: 'cover',
  level: 'cover',
  upright: true,
  title: () => 'cover',
  create: (spot) => ({
    kind: 'cover',
    way: 'blur',
    color: '#1e2a32',
    rect: areaAt(spot, 0.2, 0.08),
    strength: 24,
  }),
  marks({ rect, way, strength, color }, { scale, stage, grown, toOutput }) {
    const {
      x: left,
      y: top,
      width,
      height,
    } = padded(rectAround(cornersOf(rect).map(toOutput)), grown);
    // Outwards to whole even pixels, so that no edge of what is private shows.
    const x = Math.floor(left / 2) * 2;
    const y = Math.floor(top / 2) * 2;
    const area = intersect(
      {
        ...{ x, y, width: Math.ceil((left + width) / 2) * 2 - x },
        height: Math.ceil((top + height) / 2) * 2 - y,
      },
      stage,
    );
    if (area.width < 2 || area.height < 2) return [];
    const effect: RegionEffect =
      way === 'solid' ? { kind: way, color } : { kind: way, radius: Math.max(1, strength * scale) };
    return [{ kind: 'region', area, effect }];
  },
  handles: ({ rect }) => areaHandles(rect, 'What is hidden'),
  withHandle: ({ rect }, id, move) => ({ rect: withAreaHandle(rect, id, move) }),
  settings: ({ way }) => (way === 'solid' ? ['way', 'color'] : ['way', 'strength']),
  advice: ({ way }) =>
    way === 'solid'
      ? 'Drag the rectangle on the Picture over what is private.'
      : 'Drag the rectangle on the Picture over what is private. For passwords and keys take ' +
        'solid: of large letters a blur and coarse blocks leave something to guess.',
};
