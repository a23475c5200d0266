import { oneOf } from '../../schema/parts';
import { numberSetting } from '../../schema/setting';
import { arrowHead, arrowPath, bendTowards, COURSES, curveTop } from '../arrow-path';
import { linesSchema, shifted, type CalloutKind } from '../kind';
import { partOfPaths } from '../part-of-path';
import {
  linesLayers,
  linesSettings,
  twoPointHandles,
  twoPointProperties,
  twoPointsAt,
  withTwoPointHandle,
} from './two-points';

const schema = linesSchema('arrow', {
  ...twoPointProperties,
  course: oneOf(COURSES, {
    title: 'Way',
    labels: ['Straight', 'Curved', 'At right angles'],
    default: 'straight',
  }),
  bend: numberSetting({
    label: 'Bend',
    description: 'How far a curve leaves the straight way, as a share of it; below 0 to its right.',
    unit: '%',
    min: -1,
    max: 1,
    step: 0.01,
    factor: 100,
    fallback: 0.2,
  }),
  heads: oneOf(['end', 'both'], {
    title: 'Heads',
    labels: ['At its end', 'At both ends'],
    default: 'end',
  }),
});

/** What an arrow is, but for where and how it looks, unless something else is wanted. */
export const PLAIN_ARROW = {
  course: 'straight',
  bend: 0.2,
  heads: 'end',
  entrance: 'draw',
  exit: 'fade',
  pace: 0.25,
  ease: 'even',
} as const;

/** An arrow from one spot to another, straight, in a curve or round a corner. */
export const arrow: CalloutKind<typeof schema> = {
  schema,
  name: 'arrow',
  level: 'below',
  title: () => 'arrow',
  create: (spot) => ({ kind: 'arrow', ...twoPointsAt(spot, false), ...PLAIN_ARROW }),
  marks(item, scene) {
    const { from, to, course, bend, width, heads } = item;
    const [path] = partOfPaths([arrowPath(from, to, course, bend)], scene.drawn);
    if (!path || scene.drawn <= 0) return [];
    const ends = [
      arrowHead(path, width),
      ...(heads === 'both' ? [arrowHead([...path].reverse(), width)] : []),
    ].filter((head) => head !== null);
    return linesLayers(item, scene, [path, ...ends]);
  },
  handles: (item) => [
    ...twoPointHandles(item, 'arrow', ['Where it begins', 'Where it points']),
    ...(item.course === 'curved'
      ? [
          {
            id: 'bend',
            label: 'How far it bends',
            look: 'point' as const,
            at: curveTop(item.from, item.to, item.bend),
            shift: { dx: 0, dy: 0 },
            size: null,
          },
        ]
      : []),
  ],
  withHandle: (item, id, move) => {
    if (id !== 'bend') return withTwoPointHandle(item, id, move);
    const { from, to, bend } = item;
    return { bend: bendTowards(from, to, shifted(curveTop(from, to, bend), move.by)) };
  },
  settings: ({ course, outline }) =>
    linesSettings(schema)({ outline }).filter((name) => name !== 'bend' || course === 'curved'),
  advice: ({ course }) =>
    course === 'curved'
      ? 'Drag it, one of its ends, or the round handle at its bend, on the Picture.'
      : 'Drag it, or one of its ends, on the Picture.',
};
