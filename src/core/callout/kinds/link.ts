import { Type, type Static } from '@sinclair/typebox';
import { border } from '../../scale/lens';
import { FootageRect, Id, nullable, strict } from '../../schema/parts';
import { shareSetting } from '../../schema/setting';
import { calloutSchema, drawn, type CalloutKind } from '../kind';
import { USUAL_MOTION } from '../motion';
import { areaAt, areaHandles, withAreaHandle } from './area';

/** Addresses that a player may open: nothing that runs. */
const ADDRESS = '^(https?://|mailto:)[^\\s"<>]+$';
const LONGEST = 2000;

/**
 * The address that somebody means by what they type, with `https://` or `mailto:` before it where
 * that lacks; null for what no player may open.
 */
export function addressOf(typed: string): string | null {
  const words = typed.trim();
  const hasScheme = /^[a-z][a-z0-9+.-]*:(?!\d)/i.test(words);
  const isMail = /^[^\s/@:]+@[^\s/@:]+$/.test(words);
  const address = hasScheme ? words : `${isMail ? 'mailto:' : 'https://'}${words}`;
  return new RegExp(ADDRESS).test(address) && address.length <= LONGEST ? address : null;
}

/** Where a link leads. */
export const LinkTarget = Type.Union(
  [
    strict({ address: Type.String({ maxLength: LONGEST, pattern: ADDRESS }) }),
    strict({ stepId: Id }),
  ],
  { description: 'A web or mail address, or a step of the project.' },
);
export type LinkTarget = Static<typeof LinkTarget>;

const schema = calloutSchema('link', {
  rect: FootageRect,
  target: nullable(LinkTarget, { description: 'Null while nobody has said where it leads.' }),
  label: Type.String({ maxLength: 200, description: 'What a player says of it.' }),
  ...border,
  corner: shareSetting('Corners', 0.3, {
    description: 'Radius of its corners, as a share of half its shorter side.',
  }),
});

/** An area that can be pressed where the video is played: it leads to an address or a step. */
export const link: CalloutKind<typeof schema> = {
  schema,
  name: 'link area',
  level: 'above',
  upright: true,
  title: ({ label }) => label || 'link area',
  create: (spot) => ({
    ...{ kind: 'link', rect: areaAt(spot, 0.16, 0.08), target: null, label: '' },
    ...{ color: '#0e6b63', line: 4, corner: 0.3 },
    ...USUAL_MOTION,
  }),
  marks({ rect, color, line, corner }, scene) {
    const { scale, ratio, toOutput } = scene;
    if (line <= 0) return [];
    const { x, y } = toOutput(rect);
    const [left, top] = [Math.round(x), Math.round(y)];
    const box = {
      ...{ x: left, y: top },
      width: Math.max(2, Math.round(x + rect.width * scale) - left),
      height: Math.max(2, Math.round(y + rect.height * scale) - top),
    };
    const radius = (corner * Math.min(box.width, box.height)) / 2;
    return drawn(scene, {
      ...{ kind: 'outline', shape: 'rounded', radius, box, fill: null },
      stroke: { width: Math.max(1, line * ratio), color },
    });
  },
  handles: ({ rect }) => areaHandles(rect, 'What can be pressed'),
  withHandle: ({ rect }, id, move) => ({ rect: withAreaHandle(rect, id, move) }),
  settings: ({ line }) => ['line', ...(line > 0 ? ['color', 'corner'] : [])],
  advice: ({ target }) =>
    target
      ? 'A player that reads the links beside the video takes whoever presses here there.'
      : 'Say where it leads. Until then it is no link.',
};
