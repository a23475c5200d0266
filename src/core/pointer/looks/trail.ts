import { colorSetting, numberSetting, shareSetting } from '../../schema/setting';
import { GROWS, lookSchema, type PointerLookKind } from '../look';

const schema = lookSchema('trail', {
  time: numberSetting({
    label: 'Length',
    description: 'How long the way behind the pointer is seen, in seconds.',
    unit: 's',
    min: 0.1,
    max: 3,
    step: 0.1,
    fallback: 0.5,
    usual: [0.1, 1.5],
  }),
  size: numberSetting({
    label: 'Width',
    description: 'In frame pixels, where it is widest.',
    unit: 'px',
    min: 2,
    max: 100,
    step: 1,
    fallback: 14,
    usual: [4, 40],
  }),
  color: colorSetting('Colour', '#f2b134'),
  opacity: shareSetting('Opacity', 0.7),
  ...GROWS,
});

/** The trail is drawn of so many discs at most. */
const MOST = 40;
/** Between two of them lies at least this share of their width. */
const SPACING = 0.3;

/** The way that the pointer came, thinner and fainter the longer ago. */
export const trail: PointerLookKind<typeof schema> = {
  schema,
  label: 'Trail',
  level: 'below',
  rests: true,
  marks({ time, size, color, opacity }, { before, scale, strength, tip }) {
    const width = size * scale;
    const least = Math.max(1.5, width * SPACING);
    const discs = [];
    let last = tip;
    for (let i = 1; i <= MOST; i++) {
      const age = i / MOST;
      const center = before(age * time * 1000);
      if (Math.hypot(center.x - last.x, center.y - last.y) < least) continue;
      last = center;
      discs.push({ age, center });
    }
    // From the oldest on, so that the newest lies over them.
    return discs.reverse().map(({ age, center }) => ({
      kind: 'drawing',
      mark: {
        ...{ kind: 'disc', center, color, softness: 0.3 },
        // Even sizes are few, so that the same discs serve again.
        diameter: Math.max(4, Math.round((width * (1 - age * 0.7)) / 2) * 2),
      },
      opacity: opacity * strength * (1 - age) ** 1.5,
      blend: 'normal',
    }));
  },
};
