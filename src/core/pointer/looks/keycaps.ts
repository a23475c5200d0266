import { colorSetting, numberSetting, switchSetting } from '../../schema/setting';
import { oneOf } from '../../schema/parts';
import { typedPrivately } from '../../private/typed';
import { keysAt } from '../../telemetry/keys';
import { lookSchema, type PointerLookKind } from '../look';

const PLACES = ['bottom', 'bottom-left', 'bottom-right', 'top'] as const;

const schema = lookSchema('keycaps', {
  size: numberSetting({
    label: 'Text size',
    description: 'In frame pixels.',
    unit: 'px',
    min: 10,
    max: 200,
    step: 2,
    fallback: 36,
    usual: [16, 90],
  }),
  time: numberSetting({
    label: 'Stays for',
    description: 'How long keys are seen after they were pressed, in seconds.',
    unit: 's',
    min: 0.3,
    max: 6,
    step: 0.1,
    fallback: 1.6,
    usual: [0.5, 4],
  }),
  place: oneOf(PLACES, {
    title: 'Place',
    labels: ['Bottom', 'Bottom left', 'Bottom right', 'Top'],
    default: 'bottom',
  }),
  typing: {
    ...switchSetting('Typing as well', false),
    description: 'Never what is typed into fields for secrets, nor private data.',
  },
  color: colorSetting('Fill colour', '#fffdf8'),
  ink: colorSetting('Text colour', '#1e2a32'),
});

/** The caps stand so far from the picture's edges, as a share of its height. */
const EDGE = 0.06;
const FADE_MS = 200;

/** Pressed keys shown on the picture: shortcuts, and typing where it is wanted. */
export const keycaps: PointerLookKind<typeof schema> = {
  schema,
  label: 'Keycaps',
  level: 'above',
  always: true,
  note:
    'Shown where the pointer track has keys; those typed into fields for secrets, mail ' +
    'addresses, numbers and keys never are.',
  marks({ size, time, place, typing, color, ink }, { track, ms, scale, stage, strength }) {
    const keys = keysAt(track, ms, time * 1000, typing, typedPrivately(track));
    if (!keys) return [];
    const edge = stage.height * EDGE;
    const left = place === 'bottom-left';
    const right = place === 'bottom-right';
    return [
      {
        kind: 'drawing',
        mark: {
          ...{ kind: 'keys', caps: keys.caps, fontSize: size * scale, fill: color, ink, turn: 0 },
          align: left ? 'left' : right ? 'right' : 'middle',
          at: {
            x: left
              ? stage.x + edge
              : right
                ? stage.x + stage.width - edge
                : stage.x + stage.width / 2,
            y: place === 'top' ? stage.y + edge : stage.y + stage.height - edge,
          },
          from: place === 'top' ? 'top' : 'bottom',
        },
        opacity: strength * Math.min(1, (time * 1000 - keys.since) / FADE_MS),
        blend: 'normal',
      },
    ];
  },
};
