import type { Static } from '@sinclair/typebox';
import type { LinesMark } from '../../frame/mark';
import { Point } from '../../schema/parts';
import { colorSetting, numberSetting } from '../../schema/setting';
import { boundsOf, calloutSchema, drawn, shifted, type CalloutKind } from '../kind';

/** How wide the lines of a drawing are. */
export const LineWidth = numberSetting({
  label: 'Width',
  description: 'In pixels of what it stands on.',
  unit: 'px',
  min: 1,
  max: 400,
  step: 1,
  fallback: 8,
  usual: [2, 120],
});

const schemaOf = <const K extends string>(kind: K) =>
  calloutSchema(kind, {
    from: Point,
    to: Point,
    width: LineWidth,
    color: colorSetting('Colour', '#c2412d'),
  });

type TwoPoints<K extends string> = CalloutKind<ReturnType<typeof schemaOf<K>>>;
export type TwoPointItem = Static<ReturnType<typeof schemaOf<string>>>;

/** The share of the frame's height that a new one is wide and high, and that its line is wide. */
const NEW_SIDE = 0.16;
const NEW_WIDTH = 0.006;

/**
 * A kind of callout that two points say: a line between them, or an outline around them.
 *
 * @param closed whether its lines end where they begin
 * @param paths its lines as far as they are drawn, so many milliseconds after its start
 */
export function twoPoints<const K extends string>(
  kind: K,
  closed: boolean,
  paths: (item: Omit<TwoPointItem, 'kind'>, ms: number) => readonly (readonly Point[])[],
): TwoPoints<K> {
  const made = {
    schema: schemaOf<string>(kind),
    name: kind,
    level: 'below',
    title: () => kind,
    create: ({ at, size, frame }) => {
      // In pixels of what it stands on, as wide as it would be on the whole frame.
      const ratio = size.height / frame.height;
      const side = NEW_SIDE * frame.height * ratio;
      return {
        kind,
        from: { x: at.x - side, y: at.y - side / 2 },
        to: closed ? { x: at.x + side, y: at.y + side / 2 } : { ...at },
        width: Math.max(1, Math.round(NEW_WIDTH * frame.height * ratio)),
        color: '#c2412d',
      };
    },
    marks(item, scene) {
      const { ms, scale, toOutput } = scene;
      const lines = paths(item, ms);
      const mark: LinesMark = {
        kind: 'lines',
        paths: lines.map((path) => path.map(toOutput)),
        closed,
        width: Math.max(1, item.width * scale),
        color: item.color,
      };
      return drawn(scene, mark);
    },
    handles: ({ from, to }) => [
      {
        id: 'area',
        label: `The ${kind}`,
        look: 'area',
        ...boundsOf([from, to]),
        shift: { dx: 0, dy: 0 },
      },
      ...(
        [
          ['from', from],
          ['to', to],
        ] as const
      ).map(([id, at]) => ({
        id,
        label: closed ? 'A corner' : id === 'from' ? 'Where it begins' : 'Where it ends',
        look: 'corner' as const,
        at,
        shift: { dx: 0, dy: 0 },
        size: null,
      })),
    ],
    withHandle: ({ from, to }, id, { by }) => ({
      ...(id === 'to' ? {} : { from: shifted(from, by) }),
      ...(id === 'from' ? {} : { to: shifted(to, by) }),
    }),
    advice: () => 'Drag it, or one of its ends, on the Picture.',
  } satisfies TwoPoints<string>;
  // What is true for any name is true for this one; the compiler can't follow a name that far.
  return made as unknown as TwoPoints<K>;
}
